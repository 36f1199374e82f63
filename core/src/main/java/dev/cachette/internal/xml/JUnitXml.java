// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import java.io.StringWriter;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Results in the XML of JUnit, which build servers read. */
public final class JUnitXml {

  private static final double NANOS = 1e9;

  private final XMLStreamWriter xml;

  private JUnitXml(XMLStreamWriter xml) {
    this.xml = xml;
  }

  /**
   * A suite.
   *
   * @param name its name
   * @param results its tests
   */
  public record Suite(String name, List<Result> results) {}

  /**
   * The result of a test.
   *
   * @param name its name
   * @param took how long it took
   * @param problem why it has not succeeded; empty if it has
   */
  public record Result(String name, Duration took, Optional<Problem> problem) {}

  /**
   * Why a test has not succeeded.
   *
   * @param isFailure whether a check has failed; otherwise it could not be checked
   * @param message the problem, in one line
   * @param text the whole explanation
   */
  public record Problem(boolean isFailure, String message, String text) {}

  /** Returns a document with these suites. */
  public static String of(List<Suite> suites) {
    StringWriter text = new StringWriter();
    try {
      XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
      new JUnitXml(xml).write(suites);
      xml.close();
    } catch (XMLStreamException impossible) {
      throw new IllegalStateException(impossible);
    }
    return text.toString();
  }

  private void write(List<Suite> suites) throws XMLStreamException {
    xml.writeStartDocument("UTF-8", "1.0");
    line(0);
    xml.writeStartElement("testsuites");
    for (Suite suite : suites) {
      write(suite);
    }
    line(0);
    xml.writeEndElement();
    line(0);
    xml.writeEndDocument();
  }

  private void write(Suite suite) throws XMLStreamException {
    List<Result> results = suite.results();
    line(1);
    xml.writeStartElement("testsuite");
    xml.writeAttribute("name", valid(suite.name()));
    xml.writeAttribute("tests", Integer.toString(results.size()));
    xml.writeAttribute("failures", count(results, true));
    xml.writeAttribute("errors", count(results, false));
    xml.writeAttribute("skipped", "0");
    xml.writeAttribute(
        "time", seconds(results.stream().map(Result::took).reduce(Duration.ZERO, Duration::plus)));
    for (Result result : results) {
      write(suite.name(), result);
    }
    line(1);
    xml.writeEndElement();
  }

  private void write(String suite, Result result) throws XMLStreamException {
    line(2);
    xml.writeStartElement("testcase");
    xml.writeAttribute("name", valid(result.name()));
    xml.writeAttribute("classname", valid(suite));
    xml.writeAttribute("time", seconds(result.took()));
    if (result.problem().isPresent()) {
      Problem problem = result.problem().get();
      line(3);
      xml.writeStartElement(problem.isFailure() ? "failure" : "error");
      xml.writeAttribute("message", valid(problem.message()));
      xml.writeCharacters(valid(problem.text()));
      xml.writeEndElement();
      line(2);
    }
    xml.writeEndElement();
  }

  private static String count(List<Result> results, boolean failures) {
    return Long.toString(
        results.stream()
            .flatMap(it -> it.problem().stream())
            .filter(it -> it.isFailure() == failures)
            .count());
  }

  private static String seconds(Duration time) {
    return String.format(Locale.ROOT, "%.3f", time.toNanos() / NANOS);
  }

  /** Replaces characters that XML 1.0 does not allow. */
  private static String valid(String text) {
    return text.replaceAll(
        "[^\\t\\n\\r\\x20-\\uD7FF\\uE000-\\uFFFD\\x{10000}-\\x{10FFFF}]", "\uFFFD");
  }

  private void line(int depth) throws XMLStreamException {
    xml.writeCharacters("\n" + "  ".repeat(depth));
  }
}
