// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.graphql;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Optional;

/**
 * One requested operation.
 *
 * @param name its name; empty if it is anonymous
 * @param kind {@code query}, {@code mutation} or {@code subscription}
 * @param fields its top-level fields, including those of fragments
 * @param variables the values of its variables
 */
public record GraphQlOperation(
    Optional<String> name, String kind, List<String> fields, JsonNode variables) {

  /** Copies the list. */
  public GraphQlOperation {
    fields = List.copyOf(fields);
  }

  /** Returns the kind and the name: {@code query VesselByName}. */
  @Override
  public String toString() {
    return kind + " " + name.orElse("(anonymous)");
  }
}
