// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.http.Request;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
    List<Request> rest = new ArrayList<>(second);
    List<Request> alone = new ArrayList<>();
    for (Request request : first) {
      if (!removeFirst(rest, other -> literal(other).equals(literal(request)))) {
        alone.add(request);
      }
    }
    for (Request request : alone) {
      boolean isPaired =
          removeFirst(
              rest,
              other -> {
                Optional<Kind> common = common(request, other);
                common.ifPresent(kinds.varying::add);
                return common.isPresent();
              });
      if (!isPaired) {
        kinds.onlyOnce.add(request);
      }
    }
    kinds.onlyOnce.addAll(rest);
    return kinds;
  }

  private static boolean removeFirst(List<Request> from, Predicate<Request> wanted) {
    for (int at = 0; at < from.size(); at++) {
      if (wanted.test(from.get(at))) {
        from.remove(at);
        return true;
      }
    }
    return false;
  }

  private static Optional<Kind> common(Request one, Request other) {
    List<String> ones = segmentsOf(one);
    List<String> others = segmentsOf(other);
    if (!beforePath(one).equals(beforePath(other)) || ones.size() != others.size()) {
      return Optional.empty();
    }
    List<Optional<String>> segments = new ArrayList<>();
    for (int at = 0; at < ones.size(); at++) {
      if (ones.get(at).equals(others.get(at))) {
        segments.add(Optional.of(ones.get(at)));
      } else if (isIdentifier(ones.get(at)) && isIdentifier(others.get(at))) {
        segments.add(Optional.empty());
      } else {
        return Optional.empty();
      }
    }
    return Optional.of(new Kind(beforePath(one), segments));
  }

  /** Words name other things; identifiers have digits. */
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
