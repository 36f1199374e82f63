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

  /** How many tests, stubs and so on are listed. */
  private static final int MOST_LISTED = 5_000;

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
    List<JsonNode> kept = important.subList(0, Math.min(MOST_LISTED, important.size()));
    List<ObjectNode> shown = new ArrayList<>();
    List<List<Brief>> calls = new ArrayList<>();
    for (JsonNode test : kept) {
      ObjectNode copy = withoutCalls(test);
      List<Brief> briefs = new ArrayList<>();
      test.path("calls").forEach(call -> addBrief(copy, call, briefs));
      calls.add(briefs);
      shown.add(copy);
    }
    for (int at = 0; at < shown.size(); at++) {
      ArrayNode detailed = shown.get(at).putArray("calls");
      calls.get(at).forEach(brief -> detailed.addRawValue(detailed(brief)));
    }
    shown.sort(Comparator.comparing(test -> test.path("startedAt").asText()));
    return JsonNodeFactory.instance.arrayNode().addAll(shown);
  }

  private static ObjectNode withoutCalls(JsonNode test) {
    ObjectNode copy = JsonNodeFactory.instance.objectNode();
    test.properties()
        .forEach(
            member -> {
              if (!member.getKey().equals("calls")) {
                copy.set(member.getKey(), cut(member.getValue()));
              }
            });
    return copy;
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
              if (!CallEvent.NAMES.contains(member.getKey())) {
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
    for (String name : CallEvent.NAMES) {
      if (brief.call.get(name) instanceof POJONode raw) {
        String detail = String.valueOf(((RawValue) raw.getPojo()).rawValue());
        if (take(detail)) {
          json.append(",\"").append(name).append("\":").append(detail);
        } else {
          isWhole = false;
        }
      }
    }
    return new RawValue(json.append(isWhole ? "}" : ",\"isBrief\":true}").toString());
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
