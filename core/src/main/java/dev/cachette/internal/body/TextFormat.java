// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.http.Body;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.finding.TextFinding;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Difference;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Text without a structure of its own. */
public class TextFormat implements BodyFormat {

  /** The place of a change that has no other. */
  static final String WHOLE = "body";

  private static final Set<String> SUBTYPES =
      Set.of("javascript", "graphql", "yaml", "x-yaml", "toml", "sql");

  TextFormat() {}

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.name().startsWith("text/")
        || SUBTYPES.stream().anyMatch(it -> type.name().endsWith("/" + it));
  }

  @Override
  public boolean isLike(Content content) {
    return content.encodingProblem().isEmpty() && isReadable(content);
  }

  private static boolean isReadable(Content content) {
    String text = content.text();
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (c < ' ' && c != '\t' && c != '\r' && c != '\n') {
        return false;
      }
    }
    return isEncodable(content);
  }

  private static boolean isEncodable(Content content) {
    return Arrays.equals(content.text().getBytes(content.headers().charset()), content.bytes());
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return Optional.of("text " + content.text().replace("\r\n", "\n"))
        .filter(text -> isEncodable(content));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    if (!isEncodable(expected) || !isEncodable(actual)) {
      return Optional.empty();
    }
    String want = expected.text().replace("\r\n", "\n");
    String have = actual.text().replace("\r\n", "\n");
    return Optional.of(want.equals(have) ? List.of() : List.of(difference(want, have)));
  }

  /** Returns the first line that differs. */
  public static Difference difference(String expected, String actual) {
    int place = TextDifference.place(expected, actual);
    int line = (int) expected.substring(0, place).chars().filter(c -> c == '\n').count();
    String[] wanted = expected.split("\n", -1);
    String[] lines = actual.split("\n", -1);
    String want = line < wanted.length ? wanted[line] : "no such line";
    String have = line < lines.length ? lines[line] : "";
    Difference difference =
        TextFinding.of("", want, have, part -> Masking.body(Optional.empty(), part))
            .with(TextDifference.cause(expected, actual));
    int column = TextDifference.place(want, have) + 1;
    String character = column == 1 ? "" : "character " + column;
    return wanted.length == 1 && lines.length == 1
        ? difference.at(character)
        : difference.at("line " + (line + 1) + (character.isEmpty() ? "" : ", " + character));
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    return Optional.of(
        Arrays.equals(before.bytes(), after.bytes())
            ? List.of()
            : List.of(
                new BodyChange(
                    BodyChange.Kind.VALUE,
                    WHOLE,
                    Body.of(before.bytes()).toString(),
                    Body.of(after.bytes()).toString(),
                    Ignored.NOTHING)));
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return Optional.of(content)
        .filter(TextFormat::isEncodable)
        .map(it -> StubNodes.member("sameText", StubNodes.text(it.text())));
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return answer(content, "text", "text/plain; charset=utf-8");
  }

  /** Returns the text under a key; empty if it is not UTF-8, in which stub files are written. */
  static Optional<AnswerForm> answer(Content content, String key, String impliedType) {
    String text = new String(content.bytes(), StandardCharsets.UTF_8);
    return Arrays.equals(text.getBytes(StandardCharsets.UTF_8), content.bytes())
        ? Optional.of(new AnswerForm(key, StubNodes.text(text), impliedType))
        : Optional.empty();
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    return fields.isString()
        ? Optional.of(Reading.of(TextNode.valueOf(content.text())))
        : Optional.empty();
  }
}
