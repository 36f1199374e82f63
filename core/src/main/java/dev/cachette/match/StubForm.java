// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;

/** The stub-file form of conditions. Conditions of users have none. */
interface StubForm {

  /** Returns the form; empty if user code is part of the condition. */
  Optional<JsonNode> written();

  /** Returns the form of any condition. */
  static Optional<JsonNode> of(Condition condition) {
    if (condition instanceof BuiltInCondition builtIn) {
      return builtIn.written();
    }
    return condition instanceof StubForm form ? form.written() : Optional.empty();
  }
}
