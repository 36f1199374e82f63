package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.ContentEncoding;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;

/**
 * A body in HAR: decoded from its content encoding, as text if it is text, otherwise in Base64.
 * When it is read, it is encoded again, so that it agrees with its headers.
 */
final class HarContent {

  /** The content encoding that could not be decoded. */
  private static final String CODED = "_stillEncoded";

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
    String text = new String(bytes, headers.charset());
    if (!coded && isText(text) && Arrays.equals(text.getBytes(headers.charset()), bytes)) {
      into.put("text", text);
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
      return Base64.getDecoder().decode(base64.replaceAll("[\\r\\n\\t ]", ""));
    } catch (IllegalArgumentException malformed) {
      throw new IllegalArgumentException("invalid Base64: " + malformed.getMessage(), malformed);
    }
  }

  /** A body, and the headers that agree with it. */
  record Read(Headers headers, Body body) {}

  private static boolean isText(String text) {
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (c < ' ' && c != '\t' && c != '\r' && c != '\n') {
        return false;
      }
    }
    return true;
  }
}
