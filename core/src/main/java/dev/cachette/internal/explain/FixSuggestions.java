// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.NullNode;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Suggests one fix that works for a call that no stub answers, written in the form of the closest
 * stub: in Java or in a stub file.
 */
final class FixSuggestions {

  private static final Set<String> OF_REQUEST_LINE = Set.of("method", "origin", "path");
  private static final String JSON = "json ";

  private final Request request;

  /** The stub file that declares the closest stub; null if it is declared in Java. */
  private final @Nullable String file;

  /**
   * Suggests fixes for this call.
   *
   * @param like the closest stub, whose form is used; empty if there is none
   */
  FixSuggestions(Request request, Optional<StubReference> like) {
    this.request = request;
    this.file = like.filter(StubReference::isInStubFile).map(StubReference::file).orElse(null);
  }

  /** Returns the fix for the failed conditions of the closest stub. */
  String of(List<Check> misses) {
    return misses.size() == 1 ? of(misses.get(0)) : ofLine();
  }

  private String of(Check miss) {
    return switch (miss.condition()) {
      case Obstacle.NO_ANSWER ->
          "add an answer to the stub: " + (file == null ? ".answer(...)." : "answer: ...");
      case Obstacle.USED_UP ->
          "give the stub more answers or allow more uses; or make fewer calls.";
      case Obstacle.AFTER ->
          "call that stub first, or remove " + (file == null ? "after(...)." : "after: ...");
      case Obstacle.FROM, Obstacle.UNTIL ->
          "move the session's clock into the time in which the stub is active.";
      case "condition" -> "change the code under test, or the predicate of the stub.";
      case "graphql operation" -> "change the GraphQL operation name, in the code or in the stub.";
      default -> OF_REQUEST_LINE.contains(miss.condition()) ? ofLine() : ofValue(miss);
    };
  }

  /** Returns how to stub the call, if it is correct. */
  private String ofLine() {
    String line = request.method() + " " + request.uri().origin() + request.uri().path();
    return file == null
        ? String.format("correct the call, or stub it: net.stub(\"%s\").answer(...).", line)
        : String.format(
            "correct the call, or stub it in %s:\n" + "  - request: %s\n    answer: { json: {} }\n",
            file, line);
  }

  private String ofValue(Check miss) {
    Difference first = miss.differences().get(0);
    if (first.isMissing()) {
      return String.format(
          "send %s, or remove it from the stub.", MissReason.place(CheckText.name(miss)));
    }
    boolean value = miss.condition().startsWith(JSON);
    if (value && first.kind() == Difference.Kind.STRING_FOR_NUMBER) {
      return "send a number, or accept a string: " + accepting(miss);
    }
    if (value && first.kind() == Difference.Kind.NUMBER_FOR_STRING) {
      return "send a string, or accept a number: " + accepting(miss);
    }
    return String.format(
        "change %s in the code under test, or in the stub.",
        MissReason.place(CheckText.name(miss)));
  }

  /** Returns a condition that accepts the value, which is the same in Java, JSON and YAML. */
  private String accepting(Check miss) {
    String path = miss.condition().substring(JSON.length());
    JsonNode value =
        Content.of(request.headers(), request.body())
            .json()
            .flatMap(root -> JsonQuery.parse(path).value(root))
            .orElse(NullNode.instance);
    return String.format(
        file == null ? ".json(\"%s\", is(%s))." : "json: { \"%s\": %s }",
        path,
        RequestMask.of(request).text(value.toString()).equals(value.toString()) ? value : "...");
  }
}
