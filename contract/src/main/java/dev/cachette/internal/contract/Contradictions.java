// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** Finds tests of a consumer that rely on what no provider can do: other answers to one request. */
final class Contradictions {

  private Contradictions() {}

  /**
   * A pair of tests that contradict each other.
   *
   * @param text the explanation
   */
  record Found(Observation one, Observation other, String text) {}

  /** Returns the contradictions; empty if there are none. */
  static List<Found> in(List<Observation> observations) {
    Map<String, List<Observation>> byQuestion = new TreeMap<>();
    observations.stream()
        .sorted(Comparator.comparing(Observation::order))
        .forEach(
            it -> byQuestion.computeIfAbsent(it.question(), question -> new ArrayList<>()).add(it));
    List<Found> found = new ArrayList<>();
    for (List<Observation> alike : byQuestion.values()) {
      find(alike, found);
    }
    return found;
  }

  private static void find(List<Observation> alike, List<Found> into) {
    for (int at = 0; at < alike.size(); at++) {
      Observation one = alike.get(at);
      for (Observation other : alike.subList(at + 1, alike.size())) {
        if (!one.test().equals(other.test())) {
          between(one, other).ifPresent(text -> into.add(new Found(one, other, text)));
        }
      }
    }
  }

  private static Optional<String> between(Observation one, Observation other) {
    Clause left = one.clause();
    Clause right = other.clause();
    if (left.status() == right.status() && left.shape().equals(right.shape())) {
      return Optional.empty();
    }
    boolean sameRequest = left.example().form().equals(right.example().form());
    if (left.status() != right.status()) {
      return sameRequest
          ? Optional.of(text(one, other, "status", "" + left.status(), "" + right.status()))
          : Optional.empty();
    }
    boolean sameBody = left.example().request().body().equals(right.example().request().body());
    boolean telling = left.request().size() > 1;
    if (!sameBody && !telling) {
      // One URL for many operations, such as that of GraphQL.
      return Optional.empty();
    }
    if (!left.shape().mediaType().equals(right.shape().mediaType())) {
      return sameRequest
          ? Optional.of(
              text(one, other, "media type", left.shape().mediaType(), right.shape().mediaType()))
          : Optional.empty();
    }
    return ofHeaders(one, other).or(() -> ofBodies(one, other));
  }

  private static Optional<String> ofHeaders(Observation one, Observation other) {
    for (Map.Entry<String, JsonNode> header : one.clause().shape().headers().entrySet()) {
      @Nullable JsonNode there = other.clause().shape().headers().get(header.getKey());
      if (there != null) {
        Optional<SchemaConflict> conflict = SchemaConflict.of(header.getValue(), there);
        if (conflict.isPresent()) {
          return Optional.of(
              text(
                  one,
                  other,
                  "header " + header.getKey(),
                  conflict.get().one(),
                  conflict.get().other()));
        }
      }
    }
    return Optional.empty();
  }

  private static Optional<String> ofBodies(Observation one, Observation other) {
    Optional<JsonNode> left = one.clause().shape().body();
    Optional<JsonNode> right = other.clause().shape().body();
    return left.isPresent() && right.isPresent()
        ? SchemaConflict.of(left.get(), right.get())
            .map(it -> text(one, other, it.path(), it.one(), it.other()))
        : Optional.empty();
  }

  private static String text(
      Observation one, Observation other, String place, String left, String right) {
    Clause clause = one.clause();
    String given =
        clause.given().isEmpty()
            ? ""
            : "\n  given "
                + String.join(" and ", clause.given().stream().map(Object::toString).toList());
    int width = Math.max(one.test().length(), other.test().length());
    return String.format(
        "%s%s%n  %s%n    %-" + width + "s  needs %s  (%s)%n    %-" + width + "s  needs %s  (%s)",
        clause.request().path("request").asText(),
        given,
        place,
        one.test(),
        left,
        one.place(),
        other.test(),
        right,
        other.place());
  }
}
