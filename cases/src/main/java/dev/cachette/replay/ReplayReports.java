// SPDX-License-Identifier: Apache-2.0
package dev.cachette.replay;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.xml.JUnitXml;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Writes results for other programs. */
public final class ReplayReports {

  private ReplayReports() {}

  /** Returns the results as JSON: each case with its findings. */
  public static JsonNode json(ReplayResult result) {
    Refusals.given("json(result)", result);
    ObjectNode json = JsonNodeFactory.instance.objectNode();
    json.put("same", result.isSame());
    ArrayNode cases = json.putArray("cases");
    result.cases().forEach(it -> cases.add(json(it)));
    return json;
  }

  private static ObjectNode json(CaseResult result) {
    ObjectNode json = JsonNodeFactory.instance.objectNode();
    json.put("name", result.name());
    json.put("file", result.file().toString().replace('\\', '/'));
    result.calls().forEach(json.withArray("calls")::add);
    json.put("same", result.isSame());
    json.put("updated", result.updated());
    json.put("milliseconds", result.took().toMillis());
    for (CaseFinding finding : result.findings()) {
      ObjectNode one = json.withArray("findings").addObject();
      one.put("kind", finding.kind().name().toLowerCase(Locale.ROOT).replace('_', ' '));
      one.put("call", finding.call());
      put(one, "place", finding.place());
      put(one, "expected", finding.expected());
      put(one, "actual", finding.actual());
      put(one, "cause", finding.cause());
    }
    return json;
  }

  private static void put(ObjectNode into, String member, String text) {
    if (!text.isEmpty()) {
      into.put(member, text);
    }
  }

  /** Returns the results as JUnit XML, which build servers read: a test case for each case. */
  public static String junitXml(ReplayResult result) {
    Refusals.given("junitXml(result)", result);
    return JUnitXml.of(
        List.of(
            new JUnitXml.Suite(
                "cases", result.cases().stream().map(ReplayReports::test).toList())));
  }

  private static JUnitXml.Result test(CaseResult result) {
    boolean isFailure =
        result.findings().stream().noneMatch(it -> it.kind() == CaseFinding.Kind.NO_RESPONSE);
    return new JUnitXml.Result(
        result.name(),
        result.took(),
        result.isSame()
            ? Optional.empty()
            : Optional.of(new JUnitXml.Problem(isFailure, result.summary(), result.explanation())));
  }
}
