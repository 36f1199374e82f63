// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.xml.JUnitXml;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Writes the results of a verification for other programs. */
public final class VerificationReports {

  private VerificationReports() {}

  /** Returns the results as JSON: each clause with its checks and differences. */
  public static JsonNode json(VerificationResult result) {
    Refusals.given("json(result)", result);
    ObjectNode json = JsonNodeFactory.instance.objectNode();
    json.put("provider", result.provider());
    json.put("met", result.isMet());
    ArrayNode clauses = json.putArray("clauses");
    result.clauses().forEach(it -> clauses.add(clause(it)));
    return json;
  }

  private static ObjectNode clause(ClauseResult result) {
    ObjectNode json = JsonNodeFactory.instance.objectNode();
    json.put("consumer", result.consumer());
    if (!result.consumerVersion().isEmpty()) {
      json.put("consumerVersion", result.consumerVersion());
    }
    json.put("clause", result.clause());
    json.put("request", result.request());
    result.given().forEach(json.withArray("given")::add);
    result.neededBy().forEach(json.withArray("neededBy")::add);
    json.put("outcome", word(result));
    json.put("milliseconds", result.took().toMillis());
    if (!result.problem().isEmpty()) {
      json.put("problem", result.problem());
    }
    for (Check check : result.checks()) {
      for (Difference difference : check.differences()) {
        ObjectNode one = json.withArray("differences").addObject();
        one.put("check", check.condition());
        one.put("at", difference.at());
        one.put("expected", difference.expected());
        one.put("actual", difference.actual());
        difference.cause().ifPresent(it -> one.put("cause", it.toString()));
      }
    }
    return json;
  }

  /** Returns the outcome in words: {@code met}, {@code not met}, {@code not checked}. */
  static String word(ClauseResult result) {
    return result.outcome().name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /**
   * Returns the results as JUnit XML, which build servers read: a test suite for each consumer, a
   * test case for each clause.
   */
  public static String junitXml(VerificationResult result) {
    Refusals.given("junitXml(result)", result);
    return JUnitXml.of(
        byConsumer(result).entrySet().stream()
            .map(
                suite ->
                    new JUnitXml.Suite(
                        suite.getKey(),
                        suite.getValue().stream().map(VerificationReports::test).toList()))
            .toList());
  }

  private static JUnitXml.Result test(ClauseResult clause) {
    return new JUnitXml.Result(
        clause.clause(),
        clause.took(),
        clause.isMet()
            ? Optional.empty()
            : Optional.of(
                new JUnitXml.Problem(
                    clause.outcome() == ClauseResult.Outcome.NOT_MET,
                    clause.summary(),
                    clause.explanation())));
  }

  private static Map<String, List<ClauseResult>> byConsumer(VerificationResult result) {
    Map<String, List<ClauseResult>> all = new LinkedHashMap<>();
    for (ClauseResult each : result.clauses()) {
      String version = each.consumerVersion().isEmpty() ? "" : "@" + each.consumerVersion();
      all.computeIfAbsent(
              each.provider() + " for " + each.consumer() + version, it -> new ArrayList<>())
          .add(each);
    }
    return all;
  }
}
