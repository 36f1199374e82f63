package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Written;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * The things that one condition asks of one subject: of a part, of a SOAP message, of an operation.
 *
 * @param all each thing, in the order they were said
 */
record Aspects<S>(List<Aspect<S>> all) {

  /**
   * One thing.
   *
   * @param words what it is
   * @param written how a stub file writes it, as members of an object; empty if it cannot
   * @param check how a subject fares with it
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
   * All of them as the members of one object; empty if one cannot be written, or not beside
   * another.
   */
  Optional<JsonNode> written() {
    ObjectNode form = JsonNodeFactory.instance.objectNode();
    for (Aspect<S> aspect : all) {
      if (aspect.written().isEmpty() || !Written.merge(form, aspect.written().get())) {
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

  /** What a subject lacks; where a difference names no place, that is the thing itself. */
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
