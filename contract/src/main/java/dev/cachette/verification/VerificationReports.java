// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes the results of a verification for other programs. */
public final class VerificationReports {

  private static final double NANOS = 1e9;

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
    StringWriter text = new StringWriter();
    try {
      XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
      xml.writeStartDocument("UTF-8", "1.0");
      line(xml, 0);
      xml.writeStartElement("testsuites");
      for (Map.Entry<String, List<ClauseResult>> suite : byConsumer(result).entrySet()) {
        suite(xml, suite.getKey(), suite.getValue());
      }
      line(xml, 0);
      xml.writeEndElement();
      line(xml, 0);
      xml.writeEndDocument();
      xml.close();
    } catch (XMLStreamException impossible) {
      throw new IllegalStateException(impossible);
    }
    return text.toString();
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

  private static void suite(XMLStreamWriter xml, String name, List<ClauseResult> clauses)
      throws XMLStreamException {
    line(xml, 1);
    xml.writeStartElement("testsuite");
    xml.writeAttribute("name", name);
    xml.writeAttribute("tests", Integer.toString(clauses.size()));
    xml.writeAttribute("failures", count(clauses, ClauseResult.Outcome.NOT_MET));
    xml.writeAttribute("errors", count(clauses, ClauseResult.Outcome.NOT_CHECKED));
    xml.writeAttribute("skipped", "0");
    xml.writeAttribute(
        "time", seconds(clauses.stream().mapToLong(it -> it.took().toNanos()).sum()));
    for (ClauseResult clause : clauses) {
      testCase(xml, name, clause);
    }
    line(xml, 1);
    xml.writeEndElement();
  }

  private static void testCase(XMLStreamWriter xml, String suite, ClauseResult clause)
      throws XMLStreamException {
    line(xml, 2);
    xml.writeStartElement("testcase");
    xml.writeAttribute("name", valid(clause.clause()));
    xml.writeAttribute("classname", suite);
    xml.writeAttribute("time", seconds(clause.took().toNanos()));
    if (!clause.isMet()) {
      boolean isFailure = clause.outcome() == ClauseResult.Outcome.NOT_MET;
      line(xml, 3);
      xml.writeStartElement(isFailure ? "failure" : "error");
      xml.writeAttribute("message", valid(clause.summary()));
      xml.writeCharacters(valid(clause.explanation()));
      xml.writeEndElement();
      line(xml, 2);
    }
    xml.writeEndElement();
  }

  private static String count(List<ClauseResult> clauses, ClauseResult.Outcome outcome) {
    return Long.toString(clauses.stream().filter(it -> it.outcome() == outcome).count());
  }

  private static String seconds(long nanos) {
    return String.format(Locale.ROOT, "%.3f", nanos / NANOS);
  }

  /** Replaces characters that XML 1.0 does not allow. */
  private static String valid(String text) {
    return text.replaceAll(
        "[^\\t\\n\\r\\x20-\\uD7FF\\uE000-\\uFFFD\\x{10000}-\\x{10FFFF}]", "\uFFFD");
  }

  private static void line(XMLStreamWriter xml, int depth) throws XMLStreamException {
    xml.writeCharacters("\n" + "  ".repeat(depth));
  }
}
