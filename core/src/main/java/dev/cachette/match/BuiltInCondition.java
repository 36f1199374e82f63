// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;

/** A public condition of Cachette's own, whose stub-file form is hidden from users. */
abstract class BuiltInCondition implements Condition {

  /** Returns the stub-file form; empty if user code is part of the condition. */
  abstract Optional<JsonNode> written();

  /** Returns true if it certainly takes little time for a request that is not large. */
  boolean isQuick() {
    return false;
  }
}
