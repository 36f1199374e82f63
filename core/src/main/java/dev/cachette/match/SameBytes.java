// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.body.BinaryFormat;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
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
  boolean isQuick() {
    return true;
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
    return BinaryFormat.difference(bytes, content.bytes())
        .map(difference -> Check.missed(name(), 0.3, difference))
        .orElseGet(() -> Check.held(name(), expected()));
  }
}
