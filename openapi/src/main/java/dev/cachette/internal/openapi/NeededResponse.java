// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;
import java.util.Set;

/**
 * A response that a consumer needs.
 *
 * @param status its status
 * @param mediaType its media type; empty if it has no content
 * @param headers the names of required headers
 * @param shape the JSON Schema of what it relies on in the body
 */
public record NeededResponse(
    int status, String mediaType, Set<String> headers, Optional<JsonNode> shape) {

  /** Copies the names. */
  public NeededResponse {
    headers = Set.copyOf(headers);
  }
}
