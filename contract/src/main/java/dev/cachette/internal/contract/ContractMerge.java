// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.openapi.Formats;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Makes the clauses of a contract from what tests relied on, whatever their order. */
final class ContractMerge {

  private ContractMerge() {}

  /** Returns the clauses, sorted, each with a name of its own. */
  static List<Clause> clauses(List<Observation> observations) {
    Map<String, List<Clause>> byKey = new TreeMap<>();
    observations.stream()
        .sorted(Comparator.comparing(Observation::order))
        .forEach(it -> add(it.clause(), byKey.computeIfAbsent(it.key(), key -> new ArrayList<>())));
    return ClauseNames.distinct(byKey.values().stream().flatMap(List::stream).toList());
  }

  /** Joins a clause with one of those there are, or adds it. */
  private static void add(Clause clause, List<Clause> into) {
    for (int at = 0; at < into.size(); at++) {
      Optional<Clause> joined = joined(into.get(at), clause);
      if (joined.isPresent()) {
        into.set(at, joined.get());
        return;
      }
    }
    into.add(clause);
  }

  private static Optional<Clause> joined(Clause one, Clause other) {
    if (one.shape().equals(other.shape())) {
      return Optional.of(one.neededAlsoBy(other.neededBy()));
    }
    return shape(one.shape(), other.shape())
        .flatMap(
            shape -> {
              Optional<Clause> example =
                  isMetBy(one, shape)
                      ? Optional.of(one)
                      : Optional.of(other).filter(it -> isMetBy(it, shape));
              return example.map(
                  it ->
                      new Clause(
                              it.name(),
                              it.given(),
                              it.request(),
                              it.example(),
                              it.answer(),
                              shape,
                              one.neededBy())
                          .neededAlsoBy(other.neededBy()));
            });
  }

  private static Optional<ResponseShape> shape(ResponseShape one, ResponseShape other) {
    Map<String, JsonNode> headers = new LinkedHashMap<>(one.headers());
    for (Map.Entry<String, JsonNode> header : other.headers().entrySet()) {
      JsonNode there = headers.get(header.getKey());
      Optional<JsonNode> both =
          there == null ? Optional.of(header.getValue()) : SchemaMerge.of(there, header.getValue());
      if (both.isEmpty()) {
        return Optional.empty();
      }
      headers.put(header.getKey(), both.get());
    }
    if (one.body().isEmpty() || other.body().isEmpty()) {
      return one.body().equals(other.body())
          ? Optional.of(new ResponseShape(one.mediaType(), headers, Optional.empty()))
          : Optional.empty();
    }
    return SchemaMerge.of(one.body().get(), other.body().get())
        .map(body -> new ResponseShape(one.mediaType(), headers, Optional.of(body)));
  }

  private static boolean isMetBy(Clause clause, ResponseShape shape) {
    boolean headers =
        shape.headers().keySet().stream().allMatch(clause.shape().headers()::containsKey);
    JsonNode body = clause.answer().get("json");
    return headers
        && (shape.body().isEmpty()
            || body != null
                && JsonSchemas.ofValid(shape.body().get(), new Formats())
                    .violations(body)
                    .isEmpty());
  }
}
