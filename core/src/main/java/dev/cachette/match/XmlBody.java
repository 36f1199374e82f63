// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.xml.XPaths;
import dev.cachette.internal.xml.XmlComparison;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/** A condition on the body as XML. */
final class XmlBody extends BodyCondition {

  private final String name;
  private final String expected;
  private final Optional<JsonNode> written;
  private final Function<Document, Check> checking;

  private XmlBody(
      String name,
      String expected,
      Optional<JsonNode> written,
      Function<Document, Check> checking) {
    this.name = name;
    this.expected = expected;
    this.written = written;
    this.checking = checking;
  }

  static XmlBody same(Element wanted, String text) {
    String expected = "the XML " + Quoting.quote(text.strip());
    return new XmlBody(
        "body",
        expected,
        StubNodes.member("body", "sameXml", Optional.of(StubNodes.text(text))),
        document -> {
          // A DOM tree is not safe for concurrent access, not even for reading.
          synchronized (wanted) {
            List<Difference> differences =
                XmlComparison.differences(wanted, document.getDocumentElement());
            return differences.isEmpty()
                ? Check.held("body", expected)
                : Check.missed("body", 0.5, expected, differences);
          }
        });
  }

  static XmlBody xpath(XPaths xpath, ValueCondition value) {
    String name = "xpath " + xpath;
    return new XmlBody(
        name,
        value.describe(masked(xpath)),
        value.written().map(xpath::written),
        document -> {
          Found found = Found.texts(xpath.find(document), masked(xpath));
          Check check = value.check(name, found);
          return check.holds() || !found.isEmpty()
              ? check
              : Check.missed(
                  name,
                  check.nearness(),
                  check.expected(),
                  List.of(check.differences().get(0).because(xpath.whyNothing(document))));
        });
  }

  /** Masks values by the last name of the path. */
  private static UnaryOperator<String> masked(XPaths xpath) {
    String last = XPaths.lastName(xpath.toString());
    return text -> Masking.value(last, text);
  }

  @Override
  Optional<JsonNode> written() {
    return written;
  }

  @Override
  String name() {
    return name;
  }

  @Override
  String expected() {
    return expected;
  }

  @Override
  Check check(Content content) {
    Reading<Document> reading = content.xml();
    return reading.value().map(checking).orElseGet(() -> unreadable(reading.problem()));
  }
}
