// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.POJONode;
import com.fasterxml.jackson.databind.util.RawValue;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * A run without what a page cannot hold: of the calls, first those of failed tests keep their
 * headers and bodies, then the others, as long as there is space; if there is none at all, calls
 * are left out. Each test says what it lacks.
 */
final class ShortRun {

  /** How long the JSON of the calls may be altogether. */
  private static final int SPACE = 3_800_000;

  /** A longer text of a failure or an explanation is cut. */
  private static final int MOST_TEXT = 4_000;

  /** How many tests are listed. */
  private static final int MOST_TESTS = 5_000;

  /** How many stubs, cassettes and so on are listed. */
  private static final int MOST_LISTED = 2_000;

  /** The members of a test that the page needs. */
  private static final List<String> NEEDED =
      List.of("name", "jvm", "startedAt", "durationMillis", "waitingMillis", "outcome");

  /** The members of a call that are left out first. */
  private static final List<String> DETAILS =
      List.of("explanation", "failure", "request", "response");

  private static final JsonNode NO_SPACE =
      JsonNodeFactory.instance.textNode("There was no space for it; it is in run.json.");

  private long space = SPACE;

  private ShortRun() {}

  static ObjectNode of(JsonNode run) {
    return new ShortRun().shortened((ObjectNode) run);
  }

  private ObjectNode shortened(ObjectNode run) {
    ObjectNode brief = JsonNodeFactory.instance.objectNode();
    run.properties()
        .forEach(
            member -> {
              JsonNode value = member.getValue();
              brief.set(member.getKey(), value.isArray() ? listed((ArrayNode) value) : value);
            });
    brief.set("tests", tests(run.path("tests")));
    for (String list : List.of("tests", "stubs", "cassettes")) {
      int more = run.path(list).size() - brief.path(list).size();
      if (more > 0) {
        brief.put(list + "NotShown", more);
      }
    }
    return brief;
  }

  private static ArrayNode listed(ArrayNode all) {
    ArrayNode some = JsonNodeFactory.instance.arrayNode();
    for (int at = 0; at < Math.min(MOST_LISTED, all.size()); at++) {
      some.add(all.get(at));
    }
    return some;
  }

  private ArrayNode tests(JsonNode all) {
    List<JsonNode> important = new ArrayList<>();
    all.forEach(important::add);
    important.sort(Comparator.comparing(test -> test.path("outcome").asText().equals("passed")));
    List<JsonNode> kept = important.subList(0, Math.min(MOST_TESTS, important.size()));
    List<ObjectNode> shown = new ArrayList<>();
    List<List<Brief>> calls = new ArrayList<>();
    for (JsonNode test : kept) {
      ObjectNode copy = JsonNodeFactory.instance.objectNode();
      NEEDED.forEach(name -> copy.set(name, test.path(name)));
      List<Brief> briefs = new ArrayList<>();
      test.path("calls").forEach(call -> addBrief(copy, call, briefs));
      calls.add(briefs);
      shown.add(copy);
    }
    for (int at = 0; at < shown.size(); at++) {
      addTexts(shown.get(at), kept.get(at));
    }
    for (int at = 0; at < shown.size(); at++) {
      ArrayNode detailed = shown.get(at).putArray("calls");
      calls.get(at).forEach(brief -> detailed.addRawValue(detailed(brief)));
    }
    shown.sort(Comparator.comparing(test -> test.path("startedAt").asText()));
    return JsonNodeFactory.instance.arrayNode().addAll(shown);
  }

  /** Adds why a test failed, and what was unexpected; without explanations if there is no space. */
  private void addTexts(ObjectNode test, JsonNode whole) {
    JsonNode failure = cut(whole.path("failure"));
    if (failure.isTextual()) {
      test.set("failure", take(failure.toString()) ? failure : NO_SPACE);
    }
    ArrayNode unexpected = test.putArray("unexpected");
    for (JsonNode each : whole.path("unexpected")) {
      ObjectNode copy = (ObjectNode) cut(each);
      if (!take(copy.toString())) {
        copy.set("explanation", NO_SPACE);
      }
      unexpected.add(copy);
    }
    test.set("attempts", whole.path("attempts"));
    if (whole.has("dropped")) {
      test.set("dropped", whole.path("dropped"));
    }
  }

  private static JsonNode cut(JsonNode value) {
    if (value.isTextual() && value.asText().length() > MOST_TEXT) {
      return JsonNodeFactory.instance.textNode(
          value.asText().substring(0, MOST_TEXT) + "\n... (cut; run.json has it whole)");
    }
    if (value.isArray()) {
      ArrayNode array = JsonNodeFactory.instance.arrayNode();
      value.forEach(element -> array.add(cut(element)));
      return array;
    }
    if (value.isObject()) {
      ObjectNode object = JsonNodeFactory.instance.objectNode();
      value.properties().forEach(it -> object.set(it.getKey(), cut(it.getValue())));
      return object;
    }
    return value;
  }

  private void addBrief(ObjectNode test, JsonNode call, List<Brief> briefs) {
    ObjectNode copy = JsonNodeFactory.instance.objectNode();
    call.properties()
        .forEach(
            member -> {
              if (!DETAILS.contains(member.getKey())) {
                copy.set(member.getKey(), cut(member.getValue()));
              }
            });
    String brief = copy.toString();
    if (take(brief)) {
      briefs.add(new Brief(brief, call));
    } else {
      test.put("callsNotShown", test.path("callsNotShown").asInt() + 1);
    }
  }

  /** Returns the JSON of a call, with its headers and bodies as far as there is space. */
  private RawValue detailed(Brief brief) {
    StringBuilder json = new StringBuilder(brief.json);
    json.setLength(json.length() - 1);
    boolean isWhole = true;
    for (String name : DETAILS) {
      if (!brief.call.has(name)) {
        continue;
      }
      String detail = text(brief.call.get(name));
      if (take(detail)) {
        json.append(",\"").append(name).append("\":").append(detail);
      } else {
        isWhole = false;
      }
    }
    return new RawValue(json.append(isWhole ? "}" : ",\"isBrief\":true}").toString());
  }

  private static String text(JsonNode detail) {
    return detail instanceof POJONode raw
        ? String.valueOf(((RawValue) raw.getPojo()).rawValue())
        : cut(detail).toString();
  }

  private boolean take(String json) {
    if (json.length() > space) {
      return false;
    }
    space -= json.length();
    return true;
  }

  /** A call without headers and bodies, and the whole call. */
  private record Brief(String json, JsonNode call) {}
}
