package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Arrays;
import java.util.Base64;
import java.util.Optional;

/** Matches a body that has exactly these bytes after decoding its content encoding. */
final class SameBytes extends BodyCondition {

  private final byte[] bytes;

  SameBytes(byte[] bytes) {
    this.bytes = bytes.clone();
  }

  @Override
  Optional<JsonNode> written() {
    String text = Base64.getEncoder().encodeToString(bytes);
    return StubNodes.member("body", "sameBytes", Optional.of(StubNodes.text(text)));
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    return bytes.length + " bytes";
  }

  @Override
  Check check(Content content) {
    byte[] actual = content.bytes();
    int at = Arrays.mismatch(bytes, actual);
    if (at < 0) {
      return Check.held(name(), expected());
    }
    return Check.missed(
        name(), 0.3, Difference.of(shown(bytes, at), shown(actual, at)).at("byte " + at));
  }

  private static String shown(byte[] bytes, int at) {
    StringBuilder out = new StringBuilder();
    for (int i = at; i < Math.min(bytes.length, at + 8); i++) {
      out.append(String.format("%02x ", bytes[i]));
    }
    return (out.isEmpty() ? "the end of the body" : out) + "(of " + bytes.length + " bytes)";
  }
}
