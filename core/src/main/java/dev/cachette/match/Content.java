package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Query;
import dev.cachette.internal.content.ContentCoding;
import dev.cachette.internal.content.Multipart;
import dev.cachette.internal.content.Parameters;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.xml.Xml;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;

/**
 * The content of a request, or of one part of it, as conditions look at it: with its content coding
 * (gzip, deflate) undone, in its charset, as JSON. What is read is read once, when it is first
 * asked for.
 *
 * <p>May be shared between threads.
 */
public final class Content {

  private final Headers headers;
  private final Body body;
  private @Nullable Reading<byte[]> decoded;
  private @Nullable Reading<JsonNode> json;

  private Content(Headers headers, Body body) {
    this.headers = headers;
    this.body = body;
  }

  /** Content with the header fields that say how it is to be read. */
  public static Content of(Headers headers, Body body) {
    return new Content(headers, body);
  }

  /** Its header fields. */
  public Headers headers() {
    return headers;
  }

  /** Its media type, if it has one that can be read. */
  public Optional<MediaType> mediaType() {
    return headers.contentType();
  }

  /** Whether there is nothing at all. */
  public boolean isEmpty() {
    return body.isEmpty();
  }

  /** The bytes, decoded; where they cannot be decoded, as they came. */
  public byte[] bytes() {
    return decoded().value().orElseGet(body::bytes);
  }

  /** The text, in the charset that the content type names, else UTF-8. */
  public String text() {
    return new String(bytes(), headers.charset());
  }

  /** The JSON; empty if it is none. Do not change it: others look at it, too. */
  public Optional<JsonNode> json() {
    return jsonReading().value();
  }

  /** Why the bytes could not be decoded; empty if they could. */
  public Optional<String> codingProblem() {
    return Optional.of(decoded().problem()).filter(problem -> !problem.isEmpty());
  }

  synchronized Reading<JsonNode> jsonReading() {
    if (json == null) {
      json = readJson();
    }
    return json;
  }

  /** A document of one's own: such trees are not safe to share. */
  Reading<Document> xml() {
    if (isEmpty()) {
      return Reading.failed("an empty body");
    }
    try {
      boolean named = mediaType().flatMap(MediaType::charset).isPresent();
      return Reading.of(named ? Xml.parse(text()) : Xml.parse(bytes()));
    } catch (Xml.MalformedXml malformed) {
      return Reading.failed("no well-formed XML, " + malformed.getMessage());
    }
  }

  Query form() {
    return Query.read(text());
  }

  Reading<List<Part>> parts() {
    Optional<MediaType> type = mediaType();
    if (type.isEmpty() || !type.get().type().equals("multipart")) {
      return Reading.failed(
          type.map(other -> "content of type " + other).orElse("content of no type"));
    }
    Optional<String> boundary =
        headers.first("content-type").flatMap(value -> Parameters.of(value).named("boundary"));
    if (boundary.isEmpty()) {
      return Reading.failed("multipart content whose type names no boundary");
    }
    try {
      return Reading.of(Multipart.parts(bytes(), boundary.get()));
    } catch (IllegalArgumentException malformed) {
      return Reading.failed("malformed multipart content: " + malformed.getMessage());
    }
  }

  private Reading<JsonNode> readJson() {
    if (isEmpty()) {
      return Reading.failed("an empty body");
    }
    if (codingProblem().isPresent()) {
      return Reading.failed(codingProblem().get());
    }
    String text = text();
    Optional<String> problem = Json.problemIn(text);
    return problem
        .map(why -> Reading.<JsonNode>failed("no JSON, " + why))
        .orElseGet(() -> Reading.of(Json.tree(text)));
  }

  private synchronized Reading<byte[]> decoded() {
    if (decoded == null) {
      decoded = decode();
    }
    return decoded;
  }

  private Reading<byte[]> decode() {
    byte[] bytes = body.bytes();
    List<String> codings = ContentCoding.namesIn(headers.all("content-encoding"));
    for (int at = codings.size() - 1; at >= 0; at--) {
      String name = codings.get(at);
      Optional<ContentCoding> coding = ContentCoding.named(name);
      if (coding.isEmpty()) {
        return Reading.failed("content in the coding \"" + name + "\", which is not known here");
      }
      try {
        bytes = coding.get().decode(bytes);
      } catch (IOException malformed) {
        return Reading.failed(
            "content that is not " + name + ", though its content-encoding says so");
      }
    }
    return Reading.of(bytes);
  }
}
