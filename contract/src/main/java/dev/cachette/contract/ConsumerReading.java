// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.Stub;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.contract.StubClause.BodyReader;
import dev.cachette.internal.contract.Needs;
import dev.cachette.internal.contract.PlainBodies;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.JsonPath;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.StubSpec;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/** Checks that a consumer can read what its clause allows. */
final class ConsumerReading {

  private ConsumerReading() {}

  /** A change that the clause allows. */
  private record Allowed(String path, boolean removed) {

    void in(JsonNode body) {
      List<String> steps = JsonPath.parse(path).steps();
      JsonNode parent = body;
      for (String step : steps.subList(0, steps.size() - 1)) {
        parent = parent.isArray() ? parent.path(Integer.parseInt(step)) : parent.path(step);
      }
      String last = steps.get(steps.size() - 1);
      if (parent instanceof ObjectNode object && removed) {
        object.remove(last);
      } else if (parent instanceof ObjectNode object && object.has(last)) {
        object.putNull(last);
      } else if (parent instanceof ArrayNode array) {
        array.setNull(Integer.parseInt(last));
      }
    }

    String words() {
      return path + (removed ? ", which may be missing" : ", which may be null");
    }
  }

  /** Checks the JSON responses of a stub. */
  static void check(Stub stub, StubSpec spec, BodyReader reader) {
    int checked = 0;
    for (Answer answer : stub.answers()) {
      Optional<JsonNode> body =
          answer instanceof ResponseAnswer plain
              ? PlainBodies.json(plain.response().headers(), plain.response().body())
              : Optional.empty();
      if (body.isPresent()) {
        check(stub, spec.extensions().get(Needs.KEY), body.get(), reader);
        checked++;
      }
    }
    if (checked == 0) {
      throw Refusals.argument("readBy(reader): the stub " + stub + " has no JSON response.");
    }
  }

  private static void check(Stub stub, @Nullable JsonNode needs, JsonNode body, BodyReader reader) {
    read(stub, body, "as it is", reader);
    List<Allowed> allowed = new ArrayList<>();
    if (needs != null) {
      for (Map.Entry<String, JsonNode> need : needs.properties()) {
        if (need.getKey().startsWith("$") || need.getKey().startsWith("/")) {
          for (Located each : JsonQuery.parse(need.getKey()).find(body)) {
            if (Needs.is(need.getValue(), "optional")) {
              allowed.add(new Allowed(each.path(), true));
            }
            if (Needs.is(need.getValue(), "nullable")) {
              allowed.add(new Allowed(each.path(), false));
            }
          }
        }
      }
    }
    for (Allowed one : allowed) {
      JsonNode changed = body.deepCopy();
      one.in(changed);
      read(stub, changed, one.words(), reader);
    }
    if (allowed.size() > 1) {
      JsonNode changed = body.deepCopy();
      allowed.forEach(it -> it.in(changed));
      read(stub, changed, "all that may be missing or null at once", reader);
    }
  }

  private static void read(Stub stub, JsonNode body, String what, BodyReader reader) {
    try {
      reader.read(Json.text(body));
    } catch (Exception failed) {
      throw new AssertionFailedError(
          String.format(
              "The consumer cannot read a response that its clause of %s allows: %s.%n"
                  + "  %s%nFix: let the consumer read it, or require the member.",
              stub, what, failed),
          failed);
    }
  }
}
