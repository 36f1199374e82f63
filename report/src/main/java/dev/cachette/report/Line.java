// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import java.util.List;
import java.util.Map;

/**
 * A line of a {@link Journal}: one JSON object, and after it, divided by tabs, further ones that
 * the report takes over without reading them.
 *
 * @param event what happened; empty for nothing
 * @param further what is taken over
 */
record Line(Map<String, Object> event, List<Map<String, Object>> further) {

  /** Nothing is written. */
  static final Line NONE = of(Map.of());

  static Line of(Map<String, Object> event) {
    return new Line(event, List.of());
  }
}
