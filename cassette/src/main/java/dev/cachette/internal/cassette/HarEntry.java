// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.uri.Percent;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * Reads an entry of a HAR file, from Cachette or another tool. Problems are reported with their
 * path.
 */
final class HarEntry {

  /** Headers of one connection, or derived from the body as it is sent. */
  private static final Set<String> NOT_REPLAYED =
      Set.of("connection", "keep-alive", "transfer-encoding", "proxy-connection", "upgrade");

  /** How browsers describe a request without an answer. */
  private static final Map<String, Fault.Kind> ERRORS =
      Map.of(
          "net::ERR_NAME_NOT_RESOLVED", Fault.Kind.UNKNOWN_HOST,
          "net::ERR_CONNECTION_REFUSED", Fault.Kind.CONNECTION_REFUSED,
          "net::ERR_CONNECTION_TIMED_OUT", Fault.Kind.CONNECT_TIMEOUT,
          "net::ERR_TIMED_OUT", Fault.Kind.CONNECT_TIMEOUT,
          "net::ERR_CONNECTION_RESET", Fault.Kind.CONNECTION_RESET,
          "net::ERR_EMPTY_RESPONSE", Fault.Kind.CONNECTION_CLOSED,
          "net::ERR_CONNECTION_CLOSED", Fault.Kind.CONNECTION_CLOSED);

  /** When the parts of a streamed body arrived. */
  static final String PIECES = "_pieces";

  /** The claims of the tokens that are placeholders, by their names. */
  static final String TOKENS = "_tokens";

  private static final int NO_CONTENT = 204;
  private static final int NOT_MODIFIED = 304;

  private HarEntry() {}

  /** Thrown if an entry is malformed. */
  static final class Malformed extends Exception {

    private static final long serialVersionUID = 1;

    Malformed(String path, String problem) {
      super(path + ": " + problem, null, false, false);
    }
  }

  /** Returns the exchange. */
  static Exchange read(JsonNode entry) throws Malformed {
    Request request = request(member(entry, "", "request"));
    Instant started = instant(entry);
    Duration time = time(entry.path("time"));
    Optional<Fault.Kind> fault = fault(entry);
    if (fault.isPresent()) {
      return Exchange.failed(started, time, request, fault.get());
    }
    JsonNode response = member(entry, "", "response");
    int status = status(response.path("status"));
    String protocol = protocol(response.path("httpVersion").asText());
    if (status == 0) {
      return new Exchange(
          started,
          time,
          protocol,
          request,
          Optional.empty(),
          Optional.empty(),
          List.of(),
          Map.of());
    }
    return Exchange.answered(started, time, protocol, request, response(request, response, status))
        .inPieces(pieces(entry.path(PIECES)))
        .withTokens(tokens(entry.path(TOKENS)));
  }

  /** Refuses a response whose body has a size, but was not recorded, as some tools export it. */
  static void requireBody(JsonNode entry) throws Malformed {
    JsonNode response = entry.path("response");
    JsonNode content = response.path("content");
    boolean without =
        entry.path("request").path("method").asText().equals("HEAD")
            || response.path("status").asInt() == NOT_MODIFIED
            || response.path("status").asInt() == NO_CONTENT;
    if (content.path("size").asLong() > 0 && !content.has("text") && !without) {
      throw new Malformed(
          "/response/content",
          "has a size of " + content.path("size").asLong() + " bytes, but no text");
    }
  }

  private static List<Exchange.Piece> pieces(JsonNode written) throws Malformed {
    List<Exchange.Piece> pieces = new ArrayList<>();
    for (JsonNode piece : written) {
      long at = piece.path("at").asLong(-1);
      int size = piece.path("size").asInt(-1);
      if (at < 0 || size < 0) {
        throw new Malformed(
            "/" + PIECES + "/" + pieces.size(), "needs \"at\" (milliseconds) and \"size\" (bytes)");
      }
      pieces.add(new Exchange.Piece(Duration.ofMillis(at), size));
    }
    return pieces;
  }

  private static Map<String, String> tokens(JsonNode written) throws Malformed {
    Map<String, String> tokens = new TreeMap<>();
    for (Map.Entry<String, JsonNode> each : written.properties()) {
      if (!each.getValue().path("iss").isTextual()) {
        throw new Malformed(
            "/" + TOKENS + "/" + each.getKey(), "needs the claims of a token, with \"iss\"");
      }
      tokens.put(each.getKey(), each.getValue().toString());
    }
    return tokens;
  }

  private static Duration time(JsonNode millis) throws Malformed {
    if (!millis.isMissingNode() && !millis.isNumber()) {
      throw new Malformed("/time", "is not a number of milliseconds, but " + millis);
    }
    // Some tools write -1 for what they do not know.
    return Duration.ofNanos((long) (Math.max(0, millis.asDouble(0)) * 1e6));
  }

  private static int status(JsonNode written) throws Malformed {
    int status = written.asInt(-1);
    if (status != 0 && (status < 100 || status > 999)) {
      throw new Malformed("/response/status", "is not a status (100 to 999), but " + written);
    }
    return status;
  }

  private static Request request(JsonNode from) throws Malformed {
    String method = text(from, "/request", "method");
    String url = text(from, "/request", "url");
    Headers headers = headers(from, "/request", "headers");
    try {
      JsonNode data = from.path("postData");
      requireText(data, "/request/postData");
      Body body = body(data, headers);
      return new Request(method, Uri.parse(Placeholders.unescaped(url)), headers, body);
    } catch (IllegalArgumentException malformed) {
      throw new Malformed("/request", malformed.getMessage());
    }
  }

  private static Body body(JsonNode from, Headers headers) {
    if (!from.has("text") && from.path("params").isArray()) {
      boolean json = from.path("mimeType").asText().contains("json");
      return json ? object(from.path("params")) : form(from.path("params"));
    }
    Headers typed =
        headers.has("content-type") || !from.has("mimeType")
            ? headers
            : headers.with("content-type", from.path("mimeType").asText());
    return HarContent.read(from, typed, "_encoding").body();
  }

  /** Some tools treat JSON as a form, and list its members. */
  private static Body object(JsonNode params) {
    ObjectNode object = JsonNodeFactory.instance.objectNode();
    params.forEach(member -> object.set(member.path("name").asText(), member.path("value")));
    return Body.of(object.toString());
  }

  private static Body form(JsonNode params) {
    List<String> fields = new ArrayList<>();
    for (JsonNode field : params) {
      fields.add(
          Percent.encodeForm(Percent.decodeForm(field.path("name").asText()))
              + "="
              + Percent.encodeForm(Percent.decodeForm(field.path("value").asText())));
    }
    return Body.of(String.join("&", fields));
  }

  private static Response response(Request request, JsonNode from, int status) throws Malformed {
    Headers headers = headers(from, "/response", "headers");
    if (!request.method().equals("HEAD") && status != NOT_MODIFIED) {
      headers = headers.with("content-length");
    }
    try {
      JsonNode content = from.path("content");
      requireText(content, "/response/content");
      Headers typed =
          headers.has("content-type") || content.path("mimeType").asText("").isEmpty()
              ? headers
              : headers.with("content-type", content.path("mimeType").asText());
      HarContent.Read read = HarContent.read(content, typed, "encoding");
      return new Response(
          status,
          headers.has("content-type") ? read.headers() : read.headers().with("content-type"),
          read.body(),
          headers(from, "/response", "_trailers"));
    } catch (IllegalArgumentException malformed) {
      throw new Malformed("/response", malformed.getMessage());
    }
  }

  /** Refuses a body that is not an object with a string, which would be read as empty. */
  private static void requireText(JsonNode body, String path) throws Malformed {
    if (!body.isMissingNode() && !body.isNull() && !body.isObject()) {
      throw new Malformed(path, "is not an object, but " + JsonComparison.type(body));
    }
    JsonNode text = body.path("text");
    if (!text.isMissingNode() && !text.isNull() && !text.isTextual()) {
      throw new Malformed(path + "/text", "is not a string, but " + JsonComparison.type(text));
    }
  }

  private static Headers headers(JsonNode from, String path, String member) throws Malformed {
    List<Header> headers = new ArrayList<>();
    JsonNode fields = from.path(member);
    if (!fields.isMissingNode() && !fields.isNull() && !fields.isArray()) {
      throw new Malformed(
          path + "/" + member, "is not an array, but " + JsonComparison.type(fields));
    }
    for (int at = 0; at < fields.size(); at++) {
      String name = fields.path(at).path("name").asText("");
      // Names that begin with a colon are HTTP/2 pseudo-headers, which are stored elsewhere.
      if (!name.startsWith(":") && !NOT_REPLAYED.contains(name.toLowerCase(Locale.ROOT))) {
        try {
          headers.add(
              new Header(name, fields.path(at).path("value").asText("").replace('\n', ' ')));
        } catch (IllegalArgumentException malformed) {
          throw new Malformed(path + "/" + member + "/" + at, malformed.getMessage());
        }
      }
    }
    return Headers.of(headers);
  }

  private static Optional<Fault.Kind> fault(JsonNode entry) throws Malformed {
    String ours = entry.path("_fault").asText("");
    if (!ours.isEmpty()) {
      for (Fault.Kind kind : Fault.Kind.values()) {
        if (faultName(kind).equals(ours)) {
          return Optional.of(kind);
        }
      }
      throw new Malformed("/_fault", "unknown fault \"" + ours + "\"");
    }
    return Optional.ofNullable(ERRORS.get(entry.path("response").path("_error").asText("")));
  }

  /** Returns the name of a fault in cassettes: {@code connectionRefused}. */
  static String faultName(Fault.Kind kind) {
    String[] words = kind.name().toLowerCase(Locale.ROOT).split("_");
    StringBuilder name = new StringBuilder(words[0]);
    for (int at = 1; at < words.length; at++) {
      name.append(words[at].substring(0, 1).toUpperCase(Locale.ROOT));
      name.append(words[at].substring(1));
    }
    return name.toString();
  }

  private static Instant instant(JsonNode entry) throws Malformed {
    String written = text(entry, "", "startedDateTime");
    try {
      return OffsetDateTime.parse(written).toInstant();
    } catch (DateTimeParseException malformed) {
      throw new Malformed(
          "/startedDateTime", "\"" + written + "\" is not a date and time (ISO 8601, with offset)");
    }
  }

  private static String protocol(String written) {
    String lower = written.toLowerCase(Locale.ROOT);
    return lower.startsWith("h2") || lower.startsWith("http/2") ? "HTTP/2" : "HTTP/1.1";
  }

  private static JsonNode member(JsonNode from, String path, String name) throws Malformed {
    JsonNode member = from.path(name);
    if (!member.isObject()) {
      throw new Malformed(
          path + "/" + name, member.isMissingNode() ? "is missing" : "is not an object");
    }
    return member;
  }

  private static String text(JsonNode from, String path, String name) throws Malformed {
    JsonNode member = from.path(name);
    if (!member.isTextual()) {
      throw new Malformed(
          path + "/" + name, member.isMissingNode() ? "is missing" : "is not a string");
    }
    return member.asText();
  }
}
