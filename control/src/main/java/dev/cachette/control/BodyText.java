// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.secret.Masking;
import java.util.Optional;

/** Bodies as text, with secrets masked. */
public final class BodyText {

  private BodyText() {}

  /** Returns a body as text; empty if it is empty or binary. */
  public static Optional<String> of(Headers headers, Body body) {
    String text = new String(body.bytes(), headers.charset());
    boolean isBinary = text.indexOf('\uFFFD') >= 0 || text.indexOf('\0') >= 0;
    return body.isEmpty() || isBinary ? Optional.empty() : Optional.of(masked(headers, text));
  }

  /** Returns the text of a body with its secrets masked. */
  static String masked(Headers headers, String text) {
    return Masking.body(headers.first("content-type"), text);
  }

  /** Returns the text of a body as JSON; empty if it is none. */
  static Optional<JsonNode> json(Headers headers, String text) {
    boolean isJson =
        BodyFormats.named(headers.first("content-type")).isJson() && Json.isValid(text);
    return isJson ? Optional.of(Json.tree(text)) : Optional.empty();
  }
}
