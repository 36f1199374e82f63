// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * The requirements of one condition on one subject: a part, a SOAP message, a GraphQL operation.
 *
 * @param all the requirements, in the order in which they were declared
 */
record Aspects<S>(List<Aspect<S>> all) {

  /**
   * One requirement.
   *
   * @param words what it requires
   * @param written how a stub file writes it, as members of an object; empty if it cannot be
   *     written
   * @param check compares a subject with it
   */
  record Aspect<S>(String words, Optional<JsonNode> written, Function<S, Check> check) {}

  static <S> Aspects<S> none() {
    return new Aspects<>(List.of());
  }

  Aspects<S> and(String words, Optional<JsonNode> written, Function<S, Check> check) {
    List<Aspect<S>> more = new ArrayList<>(all);
    more.add(new Aspect<>(words, written, check));
    return new Aspects<>(List.copyOf(more));
  }

  /**
   * Returns all requirements as the members of one object; empty if one cannot be written, or if
   * two conflict.
   */
  Optional<JsonNode> written() {
    ObjectNode form = JsonNodeFactory.instance.objectNode();
    for (Aspect<S> aspect : all) {
      if (aspect.written().isEmpty() || !StubNodes.merge(form, aspect.written().get())) {
        return Optional.empty();
      }
    }
    return Optional.of(form);
  }

  int count() {
    return all.size();
  }

  String words(String ifNone) {
    return all.isEmpty() ? ifNone : String.join(", ", all.stream().map(Aspect::words).toList());
  }

  /**
   * Returns the requirements that a subject does not meet; a difference without a place gets the
   * requirement as its place.
   */
  List<Difference> differences(S subject) {
    List<Difference> differences = new ArrayList<>();
    for (Aspect<S> aspect : all) {
      Check check = aspect.check().apply(subject);
      for (Difference difference : check.differences()) {
        boolean placed = !difference.at().isEmpty();
        differences.add(placed ? difference : difference.at(check.condition()));
      }
    }
    return differences;
  }
}
