package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.finding.TextFinding;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Optional;

/** Matches a body that is exactly this text; otherwise shows the first line that differs. */
final class SameText extends BodyCondition {

  private final String text;

  SameText(String text) {
    this.text = text;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("body", "sameText", Optional.of(StubNodes.text(text)));
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    return Quoting.quote(Masking.body(Optional.empty(), text));
  }

  @Override
  Check check(Content content) {
    Optional<String> problem = content.encodingProblem();
    if (problem.isPresent()) {
      return unreadable(problem.get());
    }
    String actual = content.text();
    if (actual.equals(text)) {
      return Check.held(name(), expected());
    }
    return Check.missed(
        name(), content.isEmpty() ? 0 : 0.5, content.isEmpty() ? empty() : difference(actual));
  }

  private Difference empty() {
    return Difference.of(expected(), "an empty body");
  }

  private Difference difference(String actual) {
    int place = TextDifference.place(text, actual);
    int line = (int) text.substring(0, place).chars().filter(c -> c == '\n').count();
    String[] wanted = text.split("\n", -1);
    String[] lines = actual.split("\n", -1);
    String want = line < wanted.length ? wanted[line] : "no such line";
    String have = line < lines.length ? lines[line] : "";
    Difference difference =
        TextFinding.of("", want, have, part -> Masking.body(Optional.empty(), part))
            .with(TextDifference.cause(text, actual));
    int column = TextDifference.place(want, have) + 1;
    String character = column == 1 ? "" : "character " + column;
    return wanted.length == 1 && lines.length == 1
        ? difference.at(character)
        : difference.at("line " + (line + 1) + (character.isEmpty() ? "" : ", " + character));
  }
}
