// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.result.Difference;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;

/** Bytes of any other type. */
public final class BinaryFormat implements BodyFormat {

  private static final int SHOWN = 8;

  BinaryFormat() {}

  @Override
  public boolean isNamedBy(BodyType type) {
    return true;
  }

  @Override
  public boolean isLike(Content content) {
    return true;
  }

  @Override
  public boolean isText() {
    return false;
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return Optional.of("bytes " + new String(content.bytes(), StandardCharsets.ISO_8859_1));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    return Optional.of(difference(expected.bytes(), actual.bytes()).stream().toList());
  }

  /** Returns the first bytes that differ; empty if none do. */
  public static Optional<Difference> difference(byte[] expected, byte[] actual) {
    int at = Arrays.mismatch(expected, actual);
    return at < 0
        ? Optional.empty()
        : Optional.of(Difference.of(shown(expected, at), shown(actual, at)).at("byte " + at));
  }

  private static String shown(byte[] bytes, int at) {
    StringBuilder out = new StringBuilder();
    for (int i = at; i < Math.min(bytes.length, at + SHOWN); i++) {
      out.append(String.format("%02x ", bytes[i]));
    }
    return (out.isEmpty() ? "the end of the body" : out) + "(of " + bytes.length + " bytes)";
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    return new TextFormat().changes(before, after, ignored);
  }

  @Override
  public String shown(Content content) {
    return "(" + content.bytes().length + " bytes)";
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return Optional.of(StubNodes.member("sameBytes", StubNodes.text(base64(content))));
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return Optional.of(
        new AnswerForm("base64", StubNodes.text(base64(content)), "application/octet-stream"));
  }

  private static String base64(Content content) {
    return Base64.getEncoder().encodeToString(content.bytes());
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    return Optional.empty();
  }
}
