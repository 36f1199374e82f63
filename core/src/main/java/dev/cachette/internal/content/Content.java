// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Query;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.xml.Xml;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;

/**
 * The content of a request, or of one part of it, as conditions see it: decoded from its content
 * encoding (gzip, deflate) and charset, and parsed as JSON. It is read once, at the first access.
 *
 * <p>Safe to share between threads.
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

  /** Creates content with the header fields that tell how to read it. */
  public static Content of(Headers headers, Body body) {
    return new Content(headers, body);
  }

  /** Returns its header fields. */
  public Headers headers() {
    return headers;
  }

  /** Returns its media type, if it has a valid one. */
  public Optional<MediaType> mediaType() {
    return headers.contentType();
  }

  /** Returns true if it is empty. */
  public boolean isEmpty() {
    return body.isEmpty();
  }

  /** Returns the bytes, decoded; the original bytes if they cannot be decoded. */
  public byte[] bytes() {
    return decoded().value().orElseGet(body::bytes);
  }

  /** Returns the text, in the charset that the content type names, else UTF-8. */
  public String text() {
    return new String(bytes(), headers.charset());
  }

  /** Returns the JSON; empty if it is not valid JSON. Do not modify it: it is shared. */
  public Optional<JsonNode> json() {
    return jsonReading().value();
  }

  /** Returns true if it has a content encoding, and is larger than a limit without it. */
  public boolean exceedsDecoded(long limit) {
    List<String> encodings = ContentEncoding.namesIn(headers.all("content-encoding"));
    return !encodings.isEmpty() && ContentEncoding.exceeds(body.bytes(), encodings, limit);
  }

  /** Returns why the bytes could not be decoded; empty if they could. */
  public Optional<String> encodingProblem() {
    return Optional.of(decoded().problem()).filter(problem -> !problem.isEmpty());
  }

  /** Returns the parsed JSON, or why parsing failed. */
  public synchronized Reading<JsonNode> jsonReading() {
    if (json == null) {
      json = readJson();
    }
    return json;
  }

  /** Returns a new document for each caller: DOM trees are not safe to share. */
  public Reading<Document> xml() {
    if (isEmpty()) {
      return Reading.failed("an empty body");
    }
    try {
      boolean named = mediaType().flatMap(MediaType::charset).isPresent();
      return Reading.of(named ? Xml.parse(text()) : Xml.parse(bytes()));
    } catch (Xml.MalformedXml malformed) {
      return Reading.failed("not well-formed XML, " + malformed.getMessage());
    }
  }

  /** Returns the fields of a URL-encoded form. */
  public Query form() {
    return Query.read(text());
  }

  /** Returns the parts of a multipart body, or why parsing failed. */
  public Reading<List<Part>> parts() {
    Optional<MediaType> type = mediaType();
    if (type.isEmpty() || !type.get().type().equals("multipart")) {
      return Reading.failed(
          type.map(other -> "content of type " + other).orElse("content without a type"));
    }
    Optional<String> boundary =
        headers.first("content-type").flatMap(value -> Parameters.of(value).named("boundary"));
    if (boundary.isEmpty()) {
      return Reading.failed("multipart content whose type has no boundary");
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
    if (encodingProblem().isPresent()) {
      return Reading.failed(encodingProblem().get());
    }
    String text = text();
    Optional<String> problem = Json.problemIn(text);
    return problem
        .map(why -> Reading.<JsonNode>failed("not valid JSON, " + why))
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
    List<String> encodings = ContentEncoding.namesIn(headers.all("content-encoding"));
    for (int at = encodings.size() - 1; at >= 0; at--) {
      String name = encodings.get(at);
      Optional<ContentEncoding> encoding = ContentEncoding.named(name);
      if (encoding.isEmpty()) {
        return Reading.failed("content with the encoding \"" + name + "\", which is not supported");
      }
      try {
        bytes = encoding.get().decode(bytes);
      } catch (IOException malformed) {
        return Reading.failed("content that is not " + name + ", despite its content-encoding");
      }
    }
    return Reading.of(bytes);
  }
}
