package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.ContentCoding;
import dev.cachette.match.Content;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;

/**
 * A body as HAR holds it: with its content coding undone, as text where it is text, else in Base64.
 * Read back it is coded again, so that it fits its headers.
 */
final class HarContent {

  /** The coding that could not be undone. */
  private static final String CODED = "_coded";

  private HarContent() {}

  /**
   * Writes a body as {@code text}.
   *
   * @param encoding the name of the member that says where the text is Base64
   * @return how many bytes it has when decoded
   */
  static int write(ObjectNode into, Headers headers, Body body, String encoding) {
    Content content = Content.of(headers, body);
    boolean coded = content.codingProblem().isPresent();
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
   * A body with the headers that it fits.
   *
   * @throws IllegalArgumentException if its Base64 is none
   */
  static Read read(JsonNode from, Headers headers, String encoding) {
    String text = from.path("text").asText("");
    byte[] bytes =
        from.path(encoding).asText().equalsIgnoreCase("base64")
            ? Base64.getMimeDecoder().decode(text)
            : text.getBytes(headers.charset());
    List<String> codings = ContentCoding.namesIn(headers.all("content-encoding"));
    if (from.has(CODED) || codings.isEmpty() || bytes.length == 0) {
      return new Read(headers, Body.of(bytes));
    }
    for (String name : codings) {
      Optional<ContentCoding> coding = ContentCoding.named(name);
      if (coding.isEmpty()) {
        // Another program has undone a coding that we cannot do again.
        return new Read(headers.with("content-encoding"), Body.of(bytes));
      }
      bytes = coding.get().encode(bytes);
    }
    return new Read(headers, Body.of(bytes));
  }

  /** A body, and the headers that it fits. */
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
