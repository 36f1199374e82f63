// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Renders a request for people: request line, significant headers, body. */
public final class RequestText {

  /** Headers that repeat the request line, or that every client sends. */
  private static final Set<String> INSIGNIFICANT =
      Set.of(
          "host",
          "connection",
          "content-length",
          "transfer-encoding",
          "keep-alive",
          "upgrade",
          "http2-settings",
          "accept-encoding",
          "user-agent");

  private static final Pattern LINE = Pattern.compile("line ([0-9]{1,9})");
  private static final int HEADERS = 8;
  private static final int BODY_LINES = 8;
  private static final int BODY_CHARACTERS = 400;
  private static final int BEFORE = 150;

  private RequestText() {}

  /**
   * Returns the request, each line indented by two spaces; secrets are masked, a long body is cut.
   */
  public static String of(Request request) {
    return "  " + request + "\n" + details(request, "");
  }

  /**
   * Returns headers and body, each line indented by two spaces.
   *
   * @param place the place that a long body is cut around: {@code $.vessel}, {@code line 3}; empty
   *     for its start
   */
  static String details(Request request, String place) {
    List<Header> telling =
        request.headers().stream()
            .filter(header -> !INSIGNIFICANT.contains(header.name().toLowerCase(Locale.ROOT)))
            .toList();
    String headers =
        telling.stream()
            .limit(HEADERS)
            .map(header -> "  " + header + "\n")
            .collect(Collectors.joining());
    String more =
        telling.size() > HEADERS
            ? "  ... " + (telling.size() - HEADERS) + " more headers ...\n"
            : "";
    String body = request.body().isEmpty() ? "" : body(request, place).indent(2);
    return headers + more + body;
  }

  private static String body(Request request, String place) {
    Content content = Content.of(request.headers(), request.body());
    if (!BodyFormats.named(request.headers().first("content-type")).isText()) {
      return "(" + request.body() + ")";
    }
    String whole = Masking.body(request.headers().first("content-type"), content.text());
    int from = start(whole, place);
    String rest = whole.substring(from, Math.min(whole.length(), from + BODY_CHARACTERS));
    List<String> lines = rest.lines().limit(BODY_LINES).toList();
    String shown = lines.stream().map(RequestText::visible).collect(Collectors.joining("\n"));
    boolean cut = from + rest.length() < whole.length() || rest.lines().count() > lines.size();
    return (from > 0 ? "... " : "")
        + (from > 0 || cut ? shown + "\n... (" + request.body() + " in all)" : shown);
  }

  /** Returns the first character to show, so that the difference is visible. */
  private static int start(String whole, String place) {
    if (whole.length() <= BODY_CHARACTERS) {
      return 0;
    }
    Matcher numbered = LINE.matcher(place);
    if (numbered.lookingAt()) {
      int line = Integer.parseInt(numbered.group(1));
      return lineStart(whole, Math.max(0, line - 3));
    }
    String name = place.replaceAll(".*[./ ]|[\\[\\]'\"@0-9]", "");
    int at = name.isEmpty() ? -1 : whole.indexOf(name);
    return Math.max(0, at - BEFORE);
  }

  private static int lineStart(String text, int lines) {
    int at = 0;
    for (int line = 0; line < lines; line++) {
      at = text.indexOf('\n', at) + 1;
    }
    return at;
  }

  private static String visible(String line) {
    return Quoting.visible(line.replace('\t', ' '));
  }
}
