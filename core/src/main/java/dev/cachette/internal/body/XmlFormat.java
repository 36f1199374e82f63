// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.text.Escapes;
import dev.cachette.internal.xml.XPaths;
import dev.cachette.internal.xml.XmlComparison;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Node;

/** XML 1.0, such as SOAP. */
final class XmlFormat implements BodyFormat {

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isKindOf("xml") && !type.name().endsWith("html");
  }

  @Override
  public boolean isLike(Content content) {
    return content.text().stripLeading().startsWith("<") && content.xml().value().isPresent();
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return content
        .xml()
        .value()
        .map(document -> "xml " + CanonicalXml.of(document, ignored.xpath()));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    Reading<Document> reading = actual.xml();
    return expected
        .xml()
        .value()
        .map(
            want ->
                reading
                    .value()
                    .map(have -> differences(want, have, ignored))
                    .orElseGet(() -> List.of(Difference.of("XML", reading.problem()))));
  }

  private static List<Difference> differences(Document want, Document have, Ignored ignored) {
    for (String expression : ignored.xpath()) {
      remove(new XPaths(expression, Map.of()).nodes(want));
      remove(new XPaths(expression, Map.of()).nodes(have));
    }
    return want.getDocumentElement() == null || have.getDocumentElement() == null
        ? List.of()
        : XmlComparison.differences(want.getDocumentElement(), have.getDocumentElement());
  }

  private static void remove(List<Node> nodes) {
    for (Node node : nodes) {
      if (node instanceof Attr attribute) {
        attribute.getOwnerElement().removeAttributeNode(attribute);
      } else if (node.getParentNode() != null) {
        node.getParentNode().removeChild(node);
      }
    }
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    return BodyChange.between(
        "XML",
        before.xml().value(),
        after.xml().value(),
        (old, now) -> XmlChanges.of(old, now, ignored.xpath()));
  }

  @Override
  public String escaped(String value) {
    return Escapes.xml(value);
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return content
        .xml()
        .value()
        .map(wellFormed -> StubNodes.member("sameXml", StubNodes.text(content.text())));
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return TextFormat.answer(content, "xml", "application/xml; charset=utf-8");
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    return Optional.empty();
  }
}
