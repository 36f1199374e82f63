package dev.cachette.calls;

import dev.cachette.match.RequestPattern;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * Which calls of a log are meant.
 *
 * @param description what stands in messages for it; empty if all are meant
 * @param pattern the pattern they must fit, if there is one
 * @param filter leaves out the calls that are not meant
 */
record Selection(
    String description, Optional<RequestPattern> pattern, Function<Call, Optional<Call>> filter) {

  static Selection everything() {
    return new Selection("", Optional.empty(), Optional::of);
  }

  static Selection fitting(RequestPattern pattern) {
    return new Selection(
        pattern.toString(), Optional.of(pattern), call -> Calls.through(pattern, call));
  }

  static Selection chosen(String description, Predicate<Call> predicate) {
    return new Selection(
        description, Optional.empty(), call -> Optional.of(call).filter(predicate));
  }

  List<Call> from(List<Call> all) {
    return all.stream().map(filter).flatMap(Optional::stream).toList();
  }

  /** The calls that are not meant. */
  List<Call> others(List<Call> all) {
    return all.stream().filter(call -> filter.apply(call).isEmpty()).toList();
  }

  /** {@code 2 calls of GET https://...}. */
  String counted(int count) {
    String calls = count == 1 ? "1 call" : count + " calls";
    return description.isEmpty() ? calls : calls + " of " + description;
  }
}
