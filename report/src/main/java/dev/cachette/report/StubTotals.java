// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The use of each stub, in all scopes that had it. */
final class StubTotals {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final Map<List<String>, Total> totals = new LinkedHashMap<>();

  /** The sums of one stub. */
  private static final class Total {
    private final JsonNode stub;
    private final int[] given;
    private int scopes;
    private int unusedIn;
    private int usedUpIn;
    private int beaten;
    private String beatenBy = "";
    private String coveredBy = "";

    Total(JsonNode stub) {
      this.stub = stub;
      this.given = new int[stub.path("answers").size()];
    }

    void add(JsonNode use) {
      scopes++;
      for (int at = 0; at < given.length; at++) {
        given[at] += use.path("given").path(at).asInt();
      }
      unusedIn += use.path("unused").asBoolean() ? 1 : 0;
      usedUpIn += use.path("usedUp").asBoolean() ? 1 : 0;
      beaten += use.path("beaten").asInt();
      beatenBy = use.path("beatenBy").asText(beatenBy);
      coveredBy = use.path("coveredBy").asText(coveredBy);
    }

    ObjectNode json() {
      ObjectNode json = NODES.objectNode();
      json.set("name", stub.path("name"));
      json.set("place", stub.path("place"));
      json.set("request", stub.path("request"));
      ArrayNode answers = json.putArray("answers");
      int calls = 0;
      for (int at = 0; at < given.length; at++) {
        calls += given[at];
        ObjectNode answer = answers.addObject();
        answer.set("answer", stub.path("answers").path(at));
        answer.put("calls", given[at]);
      }
      json.put("calls", calls);
      json.put("scopes", scopes);
      json.put("unusedIn", unusedIn);
      json.put("usedUpIn", usedUpIn);
      if (beaten > 0) {
        json.put("beaten", beaten);
        json.put("beatenBy", beatenBy);
      }
      if (!coveredBy.isEmpty()) {
        json.put("coveredBy", coveredBy);
      }
      return json;
    }
  }

  /** Adds the stubs of a scope at its end. */
  void add(JvmEvents jvm, JsonNode end) {
    for (JsonNode use : end.path("stubs")) {
      JsonNode stub = jvm.stubs().get(use.path("id").asInt());
      if (stub != null) {
        List<String> key =
            List.of(
                jvm.folder(),
                stub.path("name").asText(),
                stub.path("place").asText(),
                stub.path("request").asText(),
                stub.path("answers").toString());
        totals.computeIfAbsent(key, it -> new Total(stub)).add(use);
      }
    }
  }

  ArrayNode json() {
    ArrayNode json = NODES.arrayNode();
    totals.values().forEach(total -> json.add(total.json()));
    return json;
  }
}
