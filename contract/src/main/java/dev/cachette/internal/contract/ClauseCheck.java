// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Header;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyChange;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.SchemaText;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Compares the response of a provider with what a clause needs. */
final class ClauseCheck {

  private static final int HUNDRED = 100;

  private final Clause clause;
  private final Response actual;

  private ClauseCheck(Clause clause, Response actual) {
    this.clause = clause;
    this.actual = actual;
  }

  /** Returns the checks: status, media type, headers and body. */
  static List<Check> of(Clause clause, Response actual) {
    return new ClauseCheck(clause, actual).checks();
  }

  private List<Check> checks() {
    List<Check> checks = new ArrayList<>();
    checks.add(status());
    if (clause.status() / HUNDRED != actual.status() / HUNDRED) {
      // The body is that of something else; its differences would only hide the cause.
      return checks;
    }
    if (!clause.shape().mediaType().isEmpty()) {
      checks.add(mediaType());
    }
    clause.shape().headers().forEach((name, schema) -> checks.add(header(name, schema)));
    body().ifPresent(checks::add);
    return checks;
  }

  private Check status() {
    String wanted = Integer.toString(clause.status());
    if (clause.status() == actual.status()) {
      return Check.held("status", wanted);
    }
    String shown = Integer.toString(actual.status());
    String text = actual.body().isEmpty() ? "" : Masking.body(type(), content().text()).strip();
    String start = text.lines().findFirst().orElse("");
    Difference difference =
        Difference.of(
            wanted, start.isEmpty() || actual.status() < 400 ? shown : shown + "  " + cut(start));
    return Check.missed("status", 0, difference.with(statusCause()));
  }

  private static String cut(String text) {
    int longest = 160;
    return text.length() > longest ? text.substring(0, longest) + "..." : text;
  }

  private Optional<Cause> statusCause() {
    return switch (actual.status()) {
      case 401, 403 ->
          BodyFindings.likely(
              "the request lacks valid credentials: set them with header(...) or --header");
      case 404 ->
          BodyFindings.likely(
              clause.given().isEmpty()
                  ? "the provider does not have what the request is for; name its state with"
                      + " given(...)"
                  : "the provider is not in the state of the clause");
      default -> Optional.empty();
    };
  }

  private Check mediaType() {
    String wanted = clause.shape().mediaType();
    String found = BareMediaType.bare(actual);
    return found.equals(wanted)
        ? Check.held("media type", wanted)
        : Check.missed(
            "media type",
            0,
            Difference.of(
                wanted,
                actual.body().isEmpty()
                    ? "no content"
                    : found.isEmpty() ? Difference.MISSING : found));
  }

  private Check header(String name, JsonNode schema) {
    String condition = "header " + name;
    String words = schema.size() == 1 && schema.has("type") ? "present" : SchemaText.of(schema);
    Optional<String> value = actual.headers().first(name);
    if (value.isEmpty()) {
      List<String> names = actual.headers().stream().map(Header::name).distinct().toList();
      return Check.missed(
          condition,
          0,
          Difference.of(words, Difference.MISSING)
              .of(Difference.Kind.MISSING)
              .because(NameSuggester.hint("a header", name, names)));
    }
    List<Difference> differences =
        BodyFindings.of(schema, StubNodes.text(""), StubNodes.text(value.get()));
    return differences.isEmpty()
        ? Check.held(condition, words)
        : Check.missed(
            condition,
            0,
            Difference.of(words, "\"" + Masking.header(name, value.get()) + "\"")
                .with(differences.get(0).cause()));
  }

  private Optional<Check> body() {
    ResponseShape shape = clause.shape();
    if (shape.body().isPresent()) {
      return Optional.of(json(shape.body().get()));
    }
    if (shape.mediaType().isEmpty()) {
      return Optional.empty();
    }
    Response example = ClauseAnswer.response(clause.answer());
    List<Difference> differences =
        BodyFormats.changes(
                Content.of(example.headers(), example.body()), content(), Ignored.NOTHING)
            .stream()
            .filter(it -> it.kind() == BodyChange.Kind.GONE || it.kind() == BodyChange.Kind.TYPE)
            .map(ClauseCheck::difference)
            .toList();
    return Optional.of(
        differences.isEmpty()
            ? Check.held("body", "as in the example")
            : Check.missed("body", 0, "as in the example", differences));
  }

  private static Difference difference(BodyChange change) {
    return new Difference(
        change.place(),
        change.before(),
        change.after().isEmpty() ? Difference.MISSING : change.after(),
        Optional.empty());
  }

  private Check json(JsonNode schema) {
    Optional<JsonNode> value = actual.body().isEmpty() ? Optional.empty() : content().json();
    if (value.isEmpty()) {
      String text = actual.body().isEmpty() ? "" : content().text();
      return Check.missed(
          "body",
          0,
          Difference.of(
              "JSON: " + SchemaText.of(schema),
              text.isEmpty()
                  ? "no content"
                  : "not valid JSON: " + Json.problemIn(text).orElse("it cannot be read")));
    }
    JsonNode example = clause.answer().path("json");
    List<Difference> differences = BodyFindings.of(schema, example, value.get());
    return differences.isEmpty()
        ? Check.held("body", SchemaText.of(schema) + " with the needed shape")
        : Check.missed("body", 0, "the needed shape", differences);
  }

  private Content content() {
    return Content.of(actual.headers(), actual.body());
  }

  private Optional<String> type() {
    return actual.headers().first("content-type");
  }
}
