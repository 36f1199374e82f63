package dev.cachette.calls;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.Located;
import java.util.List;
import org.opentest4j.AssertionFailedError;

/** Finds a place in the JSON of a call. */
final class JsonLookup {

  private JsonLookup() {}

  static JsonNode find(Call call, String path) {
    JsonQuery query = JsonQuery.parse(path);
    JsonNode root = call.json();
    List<Located> found = query.find(root);
    if (found.isEmpty()) {
      throw new AssertionFailedError(
          String.format(
              "The body of this call has nothing at %s%s\n\n%s",
              path,
              query.whyNothing(root).map(why -> ": " + why).orElse(""),
              RequestText.of(call.request())));
    }
    if (query.isSingular()) {
      return found.get(0).node();
    }
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    found.forEach(located -> all.add(located.node()));
    return all;
  }
}
