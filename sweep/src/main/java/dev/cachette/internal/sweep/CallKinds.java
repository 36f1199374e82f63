// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.http.Request;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.Predicate;

/**
 * The kinds of calls of a scenario: what calls for the same thing have in common. That is method,
 * origin and path, except for identifiers in the path that differ from run to run. Two runs without
 * a fault show which these are.
 */
final class CallKinds {

  private final List<Kind> varying = new ArrayList<>();
  private final List<Request> onlyOnce = new ArrayList<>();

  private CallKinds() {}

  /** A kind with identifiers that differ: they are the empty ones of its segments. */
  private record Kind(String prefix, List<Optional<String>> segments) {

    boolean includes(Request request) {
      List<String> others = segmentsOf(request);
      if (!prefix.equals(beforePath(request)) || segments.size() != others.size()) {
        return false;
      }
      for (int at = 0; at < segments.size(); at++) {
        if (!segments.get(at).orElse(others.get(at)).equals(others.get(at))) {
          return false;
        }
      }
      return true;
    }

    /** Returns it as a request line: {@code DELETE https://berths.example/v1/bookings/{id}}. */
    @Override
    public String toString() {
      StringBuilder path = new StringBuilder();
      int variables = 0;
      for (Optional<String> segment : segments) {
        path.append(path.isEmpty() ? "" : "/");
        if (segment.isEmpty()) {
          variables++;
        }
        path.append(segment.orElse(variables == 1 ? "{id}" : "{id" + variables + "}"));
      }
      return prefix + "/" + path;
    }
  }

  /** Compares two runs without a fault. */
  static CallKinds of(List<Request> first, List<Request> second) {
    CallKinds kinds = new CallKinds();
    List<Request> alone = new ArrayList<>(first);
    List<Request> rest = new ArrayList<>(second);
    pair(alone, rest, (one, other) -> literal(one).equals(literal(other)));
    pair(alone, rest, (one, other) -> kinds.add(one, other, CallKinds::isIdentifier));
    if (first.size() == second.size()) {
      // The same number of calls, so most likely in the same order.
      pair(
          alone,
          rest,
          (one, other) ->
              first.indexOf(one) == second.indexOf(other) && kinds.add(one, other, it -> true));
    }
    kinds.onlyOnce.addAll(alone);
    kinds.onlyOnce.addAll(rest);
    return kinds;
  }

  /** Removes from two lists what belongs together. */
  private static void pair(
      List<Request> ones, List<Request> others, BiPredicate<Request, Request> together) {
    ones.removeIf(
        one ->
            others.stream()
                .filter(other -> together.test(one, other))
                .findFirst()
                .map(others::remove)
                .orElse(false));
  }

  private boolean add(Request one, Request other, Predicate<String> mayVary) {
    Optional<Kind> common = common(one, other, mayVary);
    common.ifPresent(varying::add);
    return common.isPresent();
  }

  private static Optional<Kind> common(Request one, Request other, Predicate<String> mayVary) {
    List<String> ones = segmentsOf(one);
    List<String> others = segmentsOf(other);
    if (!beforePath(one).equals(beforePath(other)) || ones.size() != others.size()) {
      return Optional.empty();
    }
    List<Optional<String>> segments = new ArrayList<>();
    for (int at = 0; at < ones.size(); at++) {
      if (ones.get(at).equals(others.get(at))) {
        segments.add(Optional.of(ones.get(at)));
      } else if (mayVary.test(ones.get(at)) && mayVary.test(others.get(at))) {
        segments.add(Optional.empty());
      } else {
        return Optional.empty();
      }
    }
    return Optional.of(new Kind(beforePath(one), segments));
  }

  /** Words may name other things; most identifiers have digits. */
  private static boolean isIdentifier(String segment) {
    return segment.chars().anyMatch(Character::isDigit);
  }

  private static List<String> segmentsOf(Request request) {
    String path = request.uri().path();
    return List.of(path.substring(path.startsWith("/") ? 1 : 0).split("/", -1));
  }

  private static String beforePath(Request request) {
    return request.method() + " " + request.uri().origin();
  }

  /** Returns method, origin and path of a call. */
  static String literal(Request request) {
    return beforePath(request) + request.uri().path();
  }

  /** Returns the kind of a call, as a request line. */
  String of(Request request) {
    return varying.stream()
        .filter(kind -> kind.includes(request))
        .findFirst()
        .map(Kind::toString)
        .orElseGet(() -> literal(request));
  }

  /** Returns the calls that only one of the two runs has made. */
  List<Request> onlyOnce() {
    return List.copyOf(onlyOnce);
  }
}
