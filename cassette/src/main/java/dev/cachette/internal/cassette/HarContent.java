// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.ContentEncoding;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A body in HAR: decoded from its content encoding, as text if it is text, otherwise in Base64.
 * When it is read, it is encoded again, so that it agrees with its headers.
 */
final class HarContent {

  /** The content encoding that could not be decoded. */
  private static final String CODED = "_stillEncoded";

  /** In these, a byte below 128 is the character of ASCII. */
  private static final Set<Charset> OF_ASCII =
      Set.of(StandardCharsets.UTF_8, StandardCharsets.ISO_8859_1, StandardCharsets.US_ASCII);

  private HarContent() {}

  /**
   * Writes a body as {@code text}.
   *
   * @param encoding the name of the member that marks Base64
   * @return the number of decoded bytes
   */
  static int write(ObjectNode into, Headers headers, Body body, String encoding) {
    Content content = Content.of(headers, body);
    boolean coded = content.encodingProblem().isPresent();
    byte[] bytes = coded ? body.bytes() : content.bytes();
    if (bytes.length == 0) {
      return 0;
    }
    Optional<String> text = coded ? Optional.empty() : text(bytes, headers.charset());
    if (text.isPresent()) {
      into.put("text", text.get());
    } else {
      into.put("text", Base64.getEncoder().encodeToString(bytes));
      into.put(encoding, "base64");
    }
    if (coded) {
      into.put(CODED, String.join(", ", headers.all("content-encoding")));
    }
    return bytes.length;
  }

  /**
   * Reads a body, and the headers that agree with it.
   *
   * @throws IllegalArgumentException if its Base64 is invalid
   */
  static Read read(JsonNode from, Headers headers, String encodingMember) {
    String text = from.path("text").asText("");
    byte[] bytes =
        from.path(encodingMember).asText().equalsIgnoreCase("base64")
            ? decoded(text)
            : text.getBytes(headers.charset());
    List<String> encodings = ContentEncoding.namesIn(headers.all("content-encoding"));
    if (from.has(CODED) || encodings.isEmpty() || bytes.length == 0) {
      return new Read(headers, Body.of(bytes));
    }
    for (String name : encodings) {
      Optional<ContentEncoding> encoding = ContentEncoding.named(name);
      if (encoding.isEmpty()) {
        // Another program decoded it from an encoding that we cannot produce.
        return new Read(headers.with("content-encoding"), Body.of(bytes));
      }
      bytes = encoding.get().encode(bytes);
    }
    return new Read(headers, Body.of(bytes));
  }

  /** Some tools break Base64 into lines; anything else that is not Base64 is refused. */
  private static byte[] decoded(String base64) {
    try {
      boolean inLines = base64.chars().anyMatch(Character::isWhitespace);
      return Base64.getDecoder().decode(inLines ? base64.replaceAll("[\\r\\n\\t ]", "") : base64);
    } catch (IllegalArgumentException malformed) {
      throw new IllegalArgumentException("invalid Base64: " + malformed.getMessage(), malformed);
    }
  }

  /** A body, and the headers that agree with it. */
  record Read(Headers headers, Body body) {}

  /** Returns bytes as text, if they are. Binary content is told by its first few bytes. */
  private static Optional<String> text(byte[] bytes, Charset charset) {
    boolean ofAscii = OF_ASCII.contains(charset);
    if (ofAscii && hasControl(bytes)) {
      return Optional.empty();
    }
    String text = new String(bytes, charset);
    boolean isReadable = ofAscii || text.chars().noneMatch(HarContent::isControl);
    return isReadable && Arrays.equals(text.getBytes(charset), bytes)
        ? Optional.of(text)
        : Optional.empty();
  }

  private static boolean hasControl(byte[] bytes) {
    for (byte each : bytes) {
      if (each >= 0 && isControl(each)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isControl(int c) {
    return c < ' ' && c != '\t' && c != '\r' && c != '\n';
  }
}
