// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.Json;
import java.util.Optional;

/** Bodies without content encoding; those of JSON without white space, so that it says nothing. */
public final class PlainBodies {

  private PlainBodies() {}

  static Body of(Headers headers, Body body) {
    if (body.isEmpty()) {
      return body;
    }
    return json(headers, body)
        .map(it -> Body.of(Json.text(it)))
        .orElseGet(() -> Body.of(Content.of(headers, body).bytes()));
  }

  /**
   * Returns the value of a body that is JSON by its content type, or has none and looks like it.
   */
  public static Optional<JsonNode> json(Headers headers, Body body) {
    if (body.isEmpty()) {
      return Optional.empty();
    }
    Content content = Content.of(headers, body);
    return BodyFormats.of(content).isJson() ? content.json() : Optional.empty();
  }
}
