// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.collection;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;

/** JSON merge patch, RFC 7396 section 2. */
final class MergePatch {

  private MergePatch() {}

  /** Returns the patched target; the arguments are not changed. */
  static JsonNode apply(JsonNode target, JsonNode patch) {
    if (!patch.isObject()) {
      return patch;
    }
    ObjectNode merged =
        target.isObject() ? target.deepCopy() : JsonNodeFactory.instance.objectNode();
    for (Map.Entry<String, JsonNode> member : patch.properties()) {
      if (member.getValue().isNull()) {
        merged.remove(member.getKey());
      } else {
        merged.set(member.getKey(), apply(merged.path(member.getKey()), member.getValue()));
      }
    }
    return merged;
  }
}
