// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The parts of a response that a consumer relies on, besides its status.
 *
 * @param mediaType its media type without parameters; empty if it has no content
 * @param headers the JSON Schemas of required headers, by name in lower case
 * @param body the JSON Schema of the body; empty if it is not JSON
 */
public record ResponseShape(
    String mediaType, Map<String, JsonNode> headers, Optional<JsonNode> body) {

  /** Copies the map. */
  public ResponseShape {
    headers = Collections.unmodifiableMap(new TreeMap<>(headers));
  }

  static ResponseShape read(JsonNode form) {
    Map<String, JsonNode> headers = new TreeMap<>();
    form.path("headers").properties().forEach(it -> headers.put(it.getKey(), it.getValue()));
    return new ResponseShape(
        form.path("mediaType").asText(""), headers, Optional.ofNullable(form.get("body")));
  }

  ObjectNode form() {
    ObjectNode form = StubNodes.object();
    if (!mediaType.isEmpty()) {
      form.put("mediaType", mediaType);
    }
    if (!headers.isEmpty()) {
      ObjectNode all = form.putObject("headers");
      headers.forEach(all::set);
    }
    body.ifPresent(it -> form.set("body", it));
    return form;
  }
}
