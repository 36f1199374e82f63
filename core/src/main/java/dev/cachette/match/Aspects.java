package dev.cachette.match;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/**
 * The things that one condition asks of one subject: of a part, of a SOAP message, of an operation.
 *
 * @param all each thing, in the order they were said
 */
record Aspects<S>(List<Aspect<S>> all) {

  /** One thing: in words, and how a subject fares with it. */
  record Aspect<S>(String words, Function<S, Check> check) {}

  static <S> Aspects<S> none() {
    return new Aspects<>(List.of());
  }

  Aspects<S> and(String words, Function<S, Check> check) {
    List<Aspect<S>> more = new ArrayList<>(all);
    more.add(new Aspect<>(words, check));
    return new Aspects<>(List.copyOf(more));
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
