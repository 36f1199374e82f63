// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import java.util.Map;
import java.util.Set;

/** Replaces masked conditions by looser ones: a masked secret would match no request. */
final class LooseConditions {

  /** Conditions by name, of which each can require any value. */
  private static final Set<String> NAMED =
      Set.of("headers", "cookies", "query", "form", "path", "xpath", "json");

  /** Replaces a masked value in a request line: any value. */
  static final String ANY = "{secret}";

  private LooseConditions() {}

  /** Returns the request of a stub. */
  static ObjectNode of(ObjectNode request) {
    ObjectNode loose = StubNodes.object();
    for (Map.Entry<String, JsonNode> member : request.properties()) {
      String key = member.getKey();
      JsonNode value = member.getValue();
      if (key.equals("bearer") || key.equals("basic")) {
        authorization(loose, key.equals("bearer") ? "Bearer " : "Basic ");
      } else if (key.equals("where")) {
        ArrayNode all = loose.arrayNode();
        value.forEach(
            each -> {
              ObjectNode inner = of((ObjectNode) each);
              if (!inner.isEmpty()) {
                all.add(inner);
              }
            });
        if (!all.isEmpty()) {
          loose.set(key, all);
        }
      } else if (!isMasked(value)) {
        set(loose, key, value);
      } else if (NAMED.contains(key)) {
        set(loose, key, present(value));
      } else if (key.equals("request")) {
        loose.put(key, value.asText().replace(Masking.MASK, ANY));
      }
    }
    return loose;
  }

  private static void authorization(ObjectNode into, String scheme) {
    ObjectNode headers = StubNodes.object();
    headers.set("authorization", StubNodes.member("startsWith", StubNodes.text(scheme)));
    set(into, "headers", headers);
  }

  private static void set(ObjectNode into, String key, JsonNode value) {
    if (into.get(key) instanceof ObjectNode there && value.isObject()) {
      value.properties().forEach(it -> there.set(it.getKey(), it.getValue()));
    } else {
      into.set(key, value.deepCopy());
    }
  }

  private static boolean isMasked(JsonNode value) {
    return value.toString().contains(Masking.MASK);
  }

  private static ObjectNode present(JsonNode named) {
    ObjectNode all = StubNodes.object();
    named
        .properties()
        .forEach(
            it ->
                all.set(
                    it.getKey(),
                    isMasked(it.getValue())
                        ? StubNodes.member("present", StubNodes.flag(true))
                        : it.getValue()));
    return all;
  }
}
