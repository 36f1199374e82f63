package dev.cachette.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.Json;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Parses a curl command, as far as a stub can express it. */
final class CurlLine {

  private static final Set<String> WITHOUT_VALUE =
      Set.of(
          "-s",
          "--silent",
          "-S",
          "--show-error",
          "-f",
          "--fail",
          "-i",
          "--include",
          "-k",
          "--insecure",
          "-L",
          "--location",
          "-v",
          "--verbose",
          "-N",
          "--no-buffer",
          "-G",
          "--get",
          "-I",
          "--head",
          "-sS",
          "-sSf",
          "-fsSL",
          "-sSL",
          "-sL",
          "--compressed",
          "--http1.1",
          "--http2",
          "-#");

  private static final Set<String> DATA =
      Set.of("-d", "--data", "--data-raw", "--data-binary", "--data-ascii", "--json");

  private final List<String> words;
  private final List<String> data = new ArrayList<>();
  private final List<String> headers = new ArrayList<>();
  private @Nullable String method;
  private @Nullable String url;
  private boolean asGet;
  private boolean head;

  private CurlLine(List<String> words) {
    this.words = words;
  }

  /**
   * Parses a command.
   *
   * @throws IllegalArgumentException if it has no URL, or an unclosed quote
   */
  static CurlLine parse(String command) {
    CurlLine line = new CurlLine(ShellWords.of(command));
    line.read();
    return line;
  }

  private void read() {
    for (int at = 1; at < words.size(); at++) {
      String word = words.get(at);
      if (word.equals("-G") || word.equals("--get")) {
        asGet = true;
      } else if (word.equals("-I") || word.equals("--head")) {
        head = true;
      }
      if (!word.startsWith("-")) {
        url = word;
      } else if (!WITHOUT_VALUE.contains(word)) {
        at = option(word, at);
      }
    }
    if (url == null) {
      throw new IllegalArgumentException("the command has no URL");
    }
  }

  /** Parses an option with its value; returns the position of the value. */
  private int option(String word, int at) {
    boolean joined = word.matches("-[XHdubAeo].+");
    String name = joined ? word.substring(0, 2) : word;
    String value = joined ? word.substring(2) : at + 1 < words.size() ? words.get(at + 1) : "";
    if (name.equals("-X") || name.equals("--request")) {
      method = value;
    } else if (name.equals("-H") || name.equals("--header")) {
      headers.add(value);
    } else if (name.equals("--url")) {
      url = value;
    } else if (DATA.contains(name)) {
      data.add(value);
    }
    return joined ? at : at + 1;
  }

  /** Returns the request line, and conditions on significant headers and on the body. */
  ObjectNode pattern() {
    String used =
        method != null ? method : head ? "HEAD" : data.isEmpty() || asGet ? "GET" : "POST";
    String whole = url + (asGet && !data.isEmpty() ? "?" + String.join("&", data) : "");
    Uri uri = Uri.parse(whole.contains("://") ? whole : "http://" + whole);
    ObjectNode pattern =
        StubsOfExchanges.pattern(new Request(used, uri, Headers.none(), Body.empty()));
    for (String header : headers) {
      int colon = header.indexOf(':');
      String name = colon < 0 ? header : header.substring(0, colon).strip();
      if (colon > 0 && isTelling(name)) {
        pattern
            .withObject("headers")
            .put(name.toLowerCase(Locale.ROOT), header.substring(colon + 1).strip());
      }
    }
    if (!data.isEmpty() && !asGet) {
      String body = String.join("&", data);
      if (Json.problemIn(body).isEmpty()) {
        pattern.putObject("body").set("sameJson", Json.tree(body));
      } else {
        pattern.putObject("body").put("sameText", body);
      }
    }
    return pattern;
  }

  /** Skips credentials, and headers that every client sends. */
  private static boolean isTelling(String name) {
    return !Set.of("authorization", "cookie", "user-agent", "accept", "content-type")
        .contains(name.toLowerCase(Locale.ROOT));
  }
}
