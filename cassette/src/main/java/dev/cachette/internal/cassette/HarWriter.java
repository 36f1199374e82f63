// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.core.util.Separators;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.json.Json;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Map;

/** Writes HAR 1.2, with members in a fixed order and an indentation of two spaces. */
public final class HarWriter {

  public static final String VERSION = "1.2";
  private static final String INDENTATION = "      ";

  /** Separates entries. */
  static final String BETWEEN = ",\n" + INDENTATION;

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private HarWriter() {}

  /** Returns an entry as it is in the file. */
  static String entry(Exchange exchange) {
    return entry(tree(exchange));
  }

  /** Returns an entry as it is in the file: its lines after the first are indented. */
  public static String entry(ObjectNode tree) {
    return indented(text(tree), INDENTATION);
  }

  /** Returns an entry as JSON. */
  public static ObjectNode tree(Exchange exchange) {
    ObjectNode entry = NODES.objectNode();
    long millis = exchange.time().toMillis();
    entry.put("startedDateTime", written(exchange.started()));
    entry.put("time", millis);
    entry.set("request", request(exchange.request(), exchange.protocol()));
    entry.set(
        "response",
        exchange
            .response()
            .map(response -> response(response, exchange.protocol()))
            .orElseGet(HarWriter::noResponse));
    entry.set("cache", NODES.objectNode());
    long wait = exchange.pieces().isEmpty() ? millis : exchange.pieces().get(0).at().toMillis();
    entry.set(
        "timings",
        NODES.objectNode().put("send", 0).put("wait", wait).put("receive", millis - wait));
    exchange.fault().ifPresent(kind -> entry.put("_fault", HarEntry.faultName(kind)));
    if (!exchange.pieces().isEmpty()) {
      ArrayNode pieces = entry.putArray(HarEntry.PIECES);
      exchange
          .pieces()
          .forEach(
              piece ->
                  pieces.addObject().put("at", piece.at().toMillis()).put("size", piece.size()));
    }
    if (!exchange.tokens().isEmpty()) {
      ObjectNode tokens = entry.putObject(HarEntry.TOKENS);
      exchange.tokens().forEach((name, claims) -> tokens.set(name, Json.tree(claims)));
    }
    return entry;
  }

  /**
   * Writes a whole file.
   *
   * @param log the members of the log before its entries
   * @param root members next to the log
   * @param entries the entries as they are in the file
   */
  public static void write(
      OutputStream out, ObjectNode log, ObjectNode root, Iterable<String> entries) {
    try {
      StringBuilder head = new StringBuilder(text(log));
      // The braces that are open after the head are closed after the entries.
      head.setLength(head.length() - "\n}".length());
      write(out, "{\n  \"log\": " + indented(head.toString(), "  ") + ",\n    \"entries\": [");
      String before = "\n" + INDENTATION;
      for (String entry : entries) {
        write(out, before + entry);
        before = BETWEEN;
      }
      String end = end(root);
      write(out, before.startsWith(",") ? end : end.stripLeading());
    } catch (IOException unwritable) {
      throw new UncheckedIOException(unwritable);
    }
  }

  /** Returns what follows the last entry of a file. */
  static String end(ObjectNode root) {
    StringBuilder end = new StringBuilder("\n    ]\n  }");
    for (Map.Entry<String, JsonNode> other : root.properties()) {
      String value = text(other.getValue());
      end.append(",\n  ").append(NODES.textNode(other.getKey())).append(": ");
      end.append(indented(value, "  "));
    }
    return end.append("\n}\n").toString();
  }

  /** Returns an instant in the format of cassettes: milliseconds, in UTC. */
  static String written(Instant instant) {
    String text = instant.truncatedTo(ChronoUnit.MILLIS).toString();
    return text.contains(".") ? text : text.replace("Z", ".000Z");
  }

  private static ObjectNode request(Request request, String protocol) {
    ObjectNode written = NODES.objectNode();
    written.put("method", request.method());
    written.put("url", request.uri().toJavaUri().toASCIIString());
    written.put("httpVersion", protocol);
    written.set("cookies", requestCookies(request.headers()));
    written.set("headers", headers(request.headers()));
    written.set("queryString", query(request.uri().query()));
    if (!request.body().isEmpty()) {
      ObjectNode content = NODES.objectNode();
      content.put("mimeType", request.headers().first("content-type").orElse(""));
      HarContent.write(content, request.headers(), request.body(), "_encoding");
      written.set("postData", content);
    }
    written.put("headersSize", -1);
    written.put("bodySize", request.body().size());
    return written;
  }

  private static ObjectNode response(Response response, String protocol) {
    ObjectNode written = NODES.objectNode();
    written.put("status", response.status());
    written.put("statusText", "");
    written.put("httpVersion", protocol);
    written.set("cookies", responseCookies(response.headers()));
    written.set("headers", headers(response.headers()));
    ObjectNode content = NODES.objectNode();
    content.put("size", 0);
    content.put("mimeType", response.headers().first("content-type").orElse(""));
    content.put("size", HarContent.write(content, response.headers(), response.body(), "encoding"));
    written.set("content", content);
    written.put("redirectURL", response.headers().first("location").orElse(""));
    written.put("headersSize", -1);
    written.put("bodySize", response.body().size());
    if (!response.trailers().isEmpty()) {
      written.set("_trailers", headers(response.trailers()));
    }
    return written;
  }

  private static ObjectNode noResponse() {
    ObjectNode written = NODES.objectNode();
    written.put("status", 0).put("statusText", "").put("httpVersion", "");
    written.set("cookies", NODES.arrayNode());
    written.set("headers", NODES.arrayNode());
    written.set("content", NODES.objectNode().put("size", 0).put("mimeType", ""));
    written.put("redirectURL", "").put("headersSize", -1).put("bodySize", -1);
    return written;
  }

  private static ArrayNode headers(Headers headers) {
    ArrayNode written = NODES.arrayNode();
    headers.forEach(header -> add(written, header.name(), header.value()));
    return written;
  }

  private static ArrayNode query(Query query) {
    ArrayNode written = NODES.arrayNode();
    query.names().forEach(name -> query.all(name).forEach(value -> add(written, name, value)));
    return written;
  }

  private static ArrayNode requestCookies(Headers headers) {
    ArrayNode written = NODES.arrayNode();
    for (String cookies : headers.all("cookie")) {
      for (String cookie : cookies.split(";")) {
        addCookie(written, cookie);
      }
    }
    return written;
  }

  private static ArrayNode responseCookies(Headers headers) {
    ArrayNode written = NODES.arrayNode();
    headers.all("set-cookie").forEach(cookie -> addCookie(written, cookie.split(";", 2)[0]));
    return written;
  }

  private static void addCookie(ArrayNode into, String pair) {
    int equals = pair.indexOf('=');
    if (equals > 0) {
      add(into, pair.substring(0, equals).strip(), pair.substring(equals + 1).strip());
    }
  }

  private static void add(ArrayNode into, String name, String value) {
    into.add(NODES.objectNode().put("name", name).put("value", value));
  }

  static String text(JsonNode node) {
    return Json.text(node, new Layout());
  }

  /** JSON has line breaks only between tokens, so indenting lines is safe. */
  private static String indented(String json, String indentation) {
    return json.replace("\n", "\n" + indentation);
  }

  private static void write(OutputStream out, String text) throws IOException {
    out.write(text.getBytes(StandardCharsets.UTF_8));
  }

  /** One member per line, so that version control can compare and merge lines. */
  private static final class Layout extends DefaultPrettyPrinter {

    private static final long serialVersionUID = 1;

    Layout() {
      super(
          Separators.createDefaultInstance()
              .withObjectFieldValueSpacing(Separators.Spacing.AFTER)
              .withObjectEmptySeparator("")
              .withArrayEmptySeparator(""));
      DefaultIndenter lines = new DefaultIndenter("  ", "\n");
      indentObjectsWith(lines);
      indentArraysWith(lines);
    }

    @Override
    public DefaultPrettyPrinter createInstance() {
      return new Layout();
    }
  }
}
