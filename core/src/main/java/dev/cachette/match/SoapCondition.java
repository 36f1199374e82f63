// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Parameters;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.xml.SoapEnvelope;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.w3c.dom.Document;

/**
 * Matches a SOAP 1.1 or 1.2 request that meets the requirements added here.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class SoapCondition extends BuiltInCondition {

  private final Aspects<Message> aspects;

  /** A request and its envelope. */
  private record Message(Received received, SoapEnvelope envelope) {}

  SoapCondition() {
    this(Aspects.none());
  }

  private SoapCondition(Aspects<Message> aspects) {
    this.aspects = aspects;
  }

  /**
   * Requires a SOAP version, which follows from the namespace of the envelope.
   *
   * @param version {@code "1.1"} or {@code "1.2"}
   * @throws IllegalArgumentException if it is another version
   */
  public SoapCondition version(String version) {
    if (!"1.1".equals(version) && !"1.2".equals(version)) {
      throw Refusals.argument("SOAP versions are 1.1 and 1.2, not " + version + ".");
    }
    return new SoapCondition(
        aspects.and(
            "version " + Values.is(version),
            Optional.of(StubNodes.member("version", StubNodes.text(version))),
            message -> {
              String actual = message.envelope().version();
              Check check = Values.is(version).check("version", Found.texts(List.of(actual)));
              return check.holds()
                  ? check
                  : Check.missed(
                      "version",
                      check.nearness(),
                      check.expected(),
                      List.of(check.differences().get(0).because(contradiction(message))));
            }));
  }

  /**
   * Requires a matching action: in SOAP 1.1 the SOAPAction header, without quotes; in 1.2 a
   * parameter of the content type.
   */
  public SoapCondition action(ValueCondition value) {
    return value(
        "action", "action", Arguments.given("action(value)", value), SoapCondition::action);
  }

  /** Requires this action. */
  public SoapCondition action(String value) {
    return action(Values.is(Arguments.given("action(value)", value)));
  }

  /** Requires the first element in the body to have a matching local name, in any namespace. */
  public SoapCondition element(ValueCondition localName) {
    return value(
        "body element",
        "element",
        Arguments.given("element(localName)", localName),
        message ->
            message.envelope().bodyElement().stream().map(SoapEnvelope.Name::local).toList());
  }

  /** Requires the first element in the body to have this local name, in any namespace. */
  public SoapCondition element(String localName) {
    return element(Values.is(Arguments.given("element(localName)", localName)));
  }

  /** Requires the first element in the body to have this namespace and local name. */
  public SoapCondition element(String namespace, String localName) {
    Arguments.given("element(namespace, localName)", namespace);
    Arguments.given("element(namespace, localName)", localName);
    return value(
        "body element",
        "qualifiedElement",
        Values.is("{" + namespace + "}" + localName),
        message ->
            message.envelope().bodyElement().stream().map(SoapEnvelope.Name::toString).toList());
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("soap", aspects.written());
  }

  @Override
  public String description() {
    return "soap: " + expected();
  }

  @Override
  public Check check(Received received) {
    Reading<Document> reading = received.content().xml();
    if (reading.value().isEmpty()) {
      return Check.missed("soap", 0, Difference.of(expected(), reading.problem()));
    }
    Optional<SoapEnvelope> envelope = SoapEnvelope.in(reading.value().get());
    if (envelope.isEmpty()) {
      String root = reading.value().get().getDocumentElement().getNodeName();
      return Check.missed(
          "soap", 0.1, Difference.of(expected(), "XML with <" + root + ">, not a SOAP envelope"));
    }
    Message message = new Message(received, envelope.get());
    List<Difference> differences = aspects.differences(message);
    return differences.isEmpty()
        ? Check.held("soap", expected())
        : Check.missed("soap", 0.5, expected(), differences);
  }

  private String expected() {
    return aspects.words("a SOAP envelope");
  }

  private SoapCondition value(
      String name, String key, ValueCondition value, Function<Message, List<String>> values) {
    return new SoapCondition(
        aspects.and(
            name + " " + value,
            StubNodes.member(key, value.written()),
            message -> value.check(name, Found.texts(values.apply(message)))));
  }

  /** Returns how namespace and content type disagree; empty if they do not. */
  private static Optional<String> contradiction(Message message) {
    String version = message.envelope().version();
    String typed =
        message
            .received()
            .header("content-type")
            .map(type -> type.startsWith("application/soap+xml") ? "1.2" : "1.1")
            .orElse(version);
    return typed.equals(version)
        ? Optional.empty()
        : Optional.of(
            String.format(
                "its namespace is that of SOAP %s; its content type is that of SOAP %s",
                version, typed));
  }

  private static List<String> action(Message message) {
    Optional<String> header =
        message.envelope().version().equals("1.1")
            ? message.received().header("soapaction").map(text -> text.replaceAll("^\"|\"$", ""))
            : message
                .received()
                .header("content-type")
                .flatMap(type -> Parameters.of(type).named("action"));
    return header.stream().toList();
  }

  @Override
  public String toString() {
    return description();
  }
}
