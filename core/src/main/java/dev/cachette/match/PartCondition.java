// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Matches a multipart body (RFC 7578) with a part of this name that meets the requirements added
 * here. If several parts have the name, one matching part is enough.
 */
public final class PartCondition extends BodyCondition {

  private final String part;
  private final Aspects<Part> aspects;

  PartCondition(String part) {
    this(part, Aspects.none());
  }

  private PartCondition(String part, Aspects<Part> aspects) {
    this.part = part;
    this.aspects = aspects;
  }

  /** Requires a file part with a matching file name. */
  public PartCondition fileName(ValueCondition value) {
    Arguments.given("fileName(value)", value);
    return with(
        "file name " + value,
        StubNodes.member("fileName", value.written()),
        found -> value.check("file name", Found.texts(found.fileName().stream().toList())));
  }

  /** Requires a file part with this file name. */
  public PartCondition fileName(String value) {
    return fileName(Values.is(Arguments.given("fileName(value)", value)));
  }

  /** Requires a matching content type, without its parameters: {@code text/csv}. */
  public PartCondition contentType(ValueCondition value) {
    Arguments.given("contentType(value)", value);
    return with(
        "content type " + value,
        StubNodes.member("contentType", value.written()),
        found -> value.check("content type", Found.texts(typeOf(found))));
  }

  /** Requires this content type, without its parameters: {@code text/csv}. */
  public PartCondition contentType(String value) {
    return contentType(Values.is(Arguments.given("contentType(value)", value)));
  }

  /** Requires matching content. */
  public PartCondition content(BodyCondition condition) {
    Arguments.given("content(condition)", condition);
    return with(
        "content " + condition.expected(),
        StubNodes.member("content", condition.written()),
        found -> condition.check(Content.of(found.headers(), found.body())));
  }

  /** Requires exactly this text as content. */
  public PartCondition content(String text) {
    return content(Bodies.sameText(text));
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("parts", part, aspects.written());
  }

  @Override
  String name() {
    return "part " + part;
  }

  @Override
  String expected() {
    return aspects.words("any content");
  }

  @Override
  Check check(Content content) {
    Reading<List<Part>> reading = content.parts();
    if (reading.value().isEmpty()) {
      return unreadable(reading.problem());
    }
    List<Part> parts = reading.value().get();
    List<Part> named =
        parts.stream().filter(each -> each.name().equals(Optional.of(part))).toList();
    return named.stream()
        .map(this::check)
        .max(Comparator.comparingDouble(Check::nearness))
        .orElseGet(() -> missing(parts));
  }

  private Check check(Part found) {
    List<Difference> differences = aspects.differences(found);
    return differences.isEmpty()
        ? Check.held(name(), expected())
        : Check.missed(name(), 0.6, expected(), differences);
  }

  private Check missing(List<Part> parts) {
    List<String> names = parts.stream().flatMap(each -> each.name().stream()).toList();
    String all = names.stream().map(Quoting::quote).collect(Collectors.joining(" and "));
    Optional<String> cause =
        NameSuggester.hint("a part", part, names)
            .or(
                () ->
                    Optional.of(
                        names.isEmpty()
                            ? "no part has a name"
                            : names.size() == 1
                                ? "the only part is " + all
                                : "the parts are " + all));
    return Check.missed(name(), 0.2, Difference.of(expected(), Difference.MISSING).because(cause));
  }

  private static List<String> typeOf(Part found) {
    return found.headers().first("content-type").map(value -> value.split(";")[0].strip()).stream()
        .toList();
  }

  private PartCondition with(
      String words, Optional<JsonNode> written, Function<Part, Check> check) {
    return new PartCondition(part, aspects.and(words, written, check));
  }
}
