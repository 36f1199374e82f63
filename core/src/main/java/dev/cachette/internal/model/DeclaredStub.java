// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * A stub as it would be declared again.
 *
 * @param spec what it answers, and when
 * @param after the stubs that must be called first
 * @param collection writes the collection of resources that it belongs to
 */
public record DeclaredStub(
    StubSpec spec, List<StubReference> after, Optional<Supplier<JsonNode>> collection) {

  /** Returns one that depends on no other. */
  public static DeclaredStub alone(StubSpec spec) {
    return new DeclaredStub(spec, List.of(), Optional.empty());
  }
}
