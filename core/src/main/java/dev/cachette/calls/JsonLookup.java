// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.text.Failed;

/** Finds a place in the JSON of a call. */
final class JsonLookup {

  private JsonLookup() {}

  static JsonNode find(Call call, String path) {
    JsonQuery query = JsonQuery.parse(path);
    JsonNode root = call.json();
    return query
        .value(root)
        .orElseThrow(
            () ->
                Failed.of(
                    String.format(
                        "The body of this call has nothing at %s%s\n\n%s",
                        path,
                        query.whyNothing(root).map(why -> ": " + why).orElse(""),
                        RequestText.of(call.request()))));
  }
}
