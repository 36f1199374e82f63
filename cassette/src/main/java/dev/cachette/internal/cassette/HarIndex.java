// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.text.JsonStreams;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * An index of the entries of a HAR file, built in one pass that skips bodies, so that opening a
 * large file takes as long as parsing its bytes, and a few words of memory per entry.
 */
public final class HarIndex {

  /** Schemes that browsers list among calls. */
  private static final Pattern NO_HTTP =
      Pattern.compile(
          "(?:data|blob|about|file|chrome-extension|moz-extension|chrome|javascript):",
          Pattern.CASE_INSENSITIVE);

  private static final int MOST_LINES = 5;

  private static final JsonFactory FACTORY = JsonStreams.leavingSourceOpen();

  private final String name;
  private final ObjectNode root = JsonNodeFactory.instance.objectNode();
  private final ObjectNode log = JsonNodeFactory.instance.objectNode();
  private final List<Entry> entries = new ArrayList<>();

  /** Lines of entries that are no HTTP calls, by the scheme of their URL. */
  private final Map<String, List<Integer>> skipped = new TreeMap<>();

  /** There are few different ones, so each is kept once. */
  private final Map<String, String> methods = new HashMap<>();

  private HarIndex(String name) {
    this.name = name;
  }

  /**
   * The position of an entry in the file.
   *
   * @param offset of its first byte
   * @param length in bytes
   * @param line its first line, from 1
   * @param method the method of its request
   * @param url the URL of its request
   */
  public record Entry(long offset, int length, int line, String method, String url) {}

  /** Creates an empty index. */
  public static HarIndex empty(String name) {
    return new HarIndex(name);
  }

  /**
   * Indexes a file.
   *
   * @param name the name of the file in messages
   * @throws CassetteException if it is not a HAR file of a supported version
   * @throws IOException if it cannot be read
   */
  public static HarIndex read(String name, InputStream in) throws IOException {
    HarIndex index = new HarIndex(name);
    try (JsonParser parser = FACTORY.createParser(in)) {
      try {
        index.readRoot(parser);
      } catch (JsonProcessingException malformed) {
        throw index.malformed(parser, Json.problem(malformed), malformed);
      }
    }
    return index;
  }

  /** Returns the name of the file in messages. */
  public String name() {
    return name;
  }

  /** Returns its entries, in file order. */
  public List<Entry> entries() {
    return entries;
  }

  /** Returns a remark on entries that are not calls, as browsers export them; empty if none is. */
  public Optional<String> skipped() {
    List<String> all = new ArrayList<>();
    skipped.forEach(
        (scheme, lines) ->
            all.add(
                scheme
                    + (lines.size() == 1 ? " in line " : " in lines ")
                    + String.join(
                        ", ", lines.stream().limit(MOST_LINES).map(String::valueOf).toList())
                    + (lines.size() > MOST_LINES ? ", ..." : "")));
    return all.isEmpty()
        ? Optional.empty()
        : Optional.of(
            "Skipped in the cassette "
                + name
                + ", as no HTTP call: "
                + String.join("; ", all)
                + ".");
  }

  /** Returns the members of the log, except its entries. */
  public ObjectNode log() {
    return log;
  }

  /** Returns the members next to the log. */
  public ObjectNode root() {
    return root;
  }

  private void readRoot(JsonParser parser) throws IOException {
    if (parser.nextToken() != JsonToken.START_OBJECT) {
      throw malformed(parser, "a HAR file is one JSON object with a member \"log\"", null);
    }
    boolean hasLog = false;
    while (parser.nextToken() == JsonToken.FIELD_NAME) {
      String member = parser.currentName();
      parser.nextToken();
      if (member.equals("log")) {
        hasLog = true;
        readLog(parser);
      } else {
        root.set(member, Json.tree(parser));
      }
    }
    if (!hasLog) {
      throw malformed(parser, "there is no member \"log\", so this is not a HAR file", null);
    }
    if (parser.nextToken() != null) {
      throw malformed(parser, "unexpected content after the end", null);
    }
    requireKnownVersion(parser);
  }

  private void readLog(JsonParser parser) throws IOException {
    require(parser, JsonToken.START_OBJECT, "an object");
    boolean hasEntries = false;
    while (parser.nextToken() == JsonToken.FIELD_NAME) {
      String member = parser.currentName();
      parser.nextToken();
      if (member.equals("entries")) {
        hasEntries = true;
        require(parser, JsonToken.START_ARRAY, "an array");
        while (parser.nextToken() != JsonToken.END_ARRAY) {
          readEntry(parser);
        }
      } else {
        log.set(member, Json.tree(parser));
      }
    }
    if (!hasEntries) {
      throw malformed(parser, "the log has no member \"entries\"", null);
    }
  }

  private void readEntry(JsonParser parser) throws IOException {
    require(parser, JsonToken.START_OBJECT, "an object");
    JsonLocation start = parser.currentTokenLocation();
    long offset = start.getByteOffset();
    if (offset < 0) {
      throw malformed(parser, "it is not encoded in UTF-8", null);
    }
    String method = "";
    String url = "";
    while (parser.nextToken() == JsonToken.FIELD_NAME) {
      boolean isRequest = parser.currentName().equals("request");
      parser.nextToken();
      if (!isRequest) {
        parser.skipChildren();
        continue;
      }
      require(parser, JsonToken.START_OBJECT, "an object");
      while (parser.nextToken() == JsonToken.FIELD_NAME) {
        String member = parser.currentName();
        parser.nextToken();
        if (member.equals("method")) {
          method = methods.computeIfAbsent(text(parser), same -> same);
        } else if (member.equals("url")) {
          url = text(parser);
        } else {
          parser.skipChildren();
        }
      }
    }
    if (method.isEmpty() || url.isEmpty()) {
      throw malformed(parser, "this entry has no request with a method and a url", null);
    }
    Matcher scheme = NO_HTTP.matcher(url);
    if (scheme.lookingAt()) {
      skipped
          .computeIfAbsent(scheme.group().toLowerCase(Locale.ROOT), unused -> new ArrayList<>())
          .add(start.getLineNr());
      return;
    }
    long length = parser.currentLocation().getByteOffset() - offset;
    entries.add(new Entry(offset, Math.toIntExact(length), start.getLineNr(), method, url));
  }

  private String text(JsonParser parser) throws IOException {
    require(parser, JsonToken.VALUE_STRING, "a text");
    return parser.getText();
  }

  private void require(JsonParser parser, JsonToken token, String what) throws IOException {
    if (parser.currentToken() != token) {
      throw malformed(parser, "expected " + what, null);
    }
  }

  private void requireKnownVersion(JsonParser parser) throws IOException {
    String version = log.path("version").asText("1.1");
    if (!version.equals("1.1") && !version.equals("1.2")) {
      throw new CassetteException(
          String.format(
              Locale.ROOT,
              "The cassette %s is HAR version %s; supported are 1.1 and 1.2.\n"
                  + "Fix: export it as HAR 1.2. The file is unchanged.",
              name,
              version));
    }
  }

  private CassetteException malformed(
      JsonParser parser, String problem, @Nullable Exception cause) {
    String place =
        cause != null
            ? ""
            : String.format(
                Locale.ROOT,
                "line %d, column %d: ",
                parser.currentTokenLocation().getLineNr(),
                parser.currentTokenLocation().getColumnNr());
    String path = parser.getParsingContext().pathAsPointer().toString();
    String message =
        String.format(
            Locale.ROOT,
            "The cassette %s cannot be read: %s%s%s\n"
                + "Fix: correct it there, restore it from version control, or delete it and record"
                + " it again.",
            name,
            place,
            problem,
            path.isEmpty() ? "" : " (at " + path + ")");
    return cause == null ? new CassetteException(message) : new CassetteException(message, cause);
  }
}
