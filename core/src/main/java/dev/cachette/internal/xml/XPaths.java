// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import javax.xml.XMLConstants;
import javax.xml.namespace.NamespaceContext;
import javax.xml.xpath.XPath;
import javax.xml.xpath.XPathEvaluationResult;
import javax.xml.xpath.XPathExpressionException;
import javax.xml.xpath.XPathFactory;
import javax.xml.xpath.XPathNodes;
import org.w3c.dom.Document;
import org.w3c.dom.Node;

/**
 * An XPath 1.0 expression with its namespace prefixes. The JDK's expressions are not thread-safe,
 * so it is compiled for each document.
 */
public final class XPaths {

  private final String expression;
  private final Map<String, String> namespaces;

  /**
   * Compiles an expression.
   *
   * @throws IllegalArgumentException if it is malformed, or uses an undeclared prefix
   */
  public XPaths(String expression, Map<String, String> namespaces) {
    this.expression = expression;
    this.namespaces = Map.copyOf(namespaces);
    try {
      compiler().compile(expression);
    } catch (XPathExpressionException malformed) {
      throw Refusals.argument(
          String.format(
              "\"%s\" is not a valid XPath 1.0 expression: %s\nFix: correct it%s.",
              expression,
              reason(malformed),
              this.namespaces.isEmpty()
                  ? "; declare its prefixes in a map, Map.of(\"v\", \"urn:harbour\")"
                  : ""),
          malformed);
    }
  }

  /** Returns the last name of a path; empty if there is none. */
  public static String lastName(String path) {
    return path.replaceAll(".*[/@:]|\\[.*|\\(\\)", "");
  }

  /** Returns the text of each selected node; of a number, string or boolean, its text. */
  public List<String> find(Document document) {
    try {
      XPathEvaluationResult<?> result = compiler().compile(expression).evaluateExpression(document);
      List<String> texts = new ArrayList<>();
      if (result.type() == XPathEvaluationResult.XPathResultType.NODESET) {
        for (Node node : (XPathNodes) result.value()) {
          texts.add(node.getTextContent().strip());
        }
      } else {
        texts.add(plain(result.value()));
      }
      return texts;
    } catch (XPathExpressionException failed) {
      throw new IllegalStateException(expression + ": " + reason(failed), failed);
    }
  }

  /** Returns why it selects nothing, if that is known. */
  public Optional<String> whyNothing(Document document) {
    return XPathMiss.cause(expression, document);
  }

  /** Returns the selected nodes; none if the result is not a node set. */
  public List<Node> nodes(Document document) {
    try {
      XPathEvaluationResult<?> result = compiler().compile(expression).evaluateExpression(document);
      List<Node> nodes = new ArrayList<>();
      if (result.type() == XPathEvaluationResult.XPathResultType.NODESET) {
        ((XPathNodes) result.value()).forEach(nodes::add);
      }
      return nodes;
    } catch (XPathExpressionException failed) {
      throw new IllegalStateException(expression + ": " + reason(failed), failed);
    }
  }

  /** Returns the stub-file form of a condition on the result. */
  public JsonNode written(JsonNode condition) {
    ObjectNode form = StubNodes.member("xpath", StubNodes.member(expression, condition));
    if (!namespaces.isEmpty()) {
      ObjectNode prefixes = form.putObject("namespaces");
      new TreeMap<>(namespaces).forEach(prefixes::put);
    }
    return form;
  }

  private XPath compiler() {
    XPath compiler = XPathFactory.newDefaultInstance().newXPath();
    compiler.setNamespaceContext(new Prefixes(namespaces));
    return compiler;
  }

  /** Formats whole numbers without a fraction, as XPath does. */
  private static String plain(Object value) {
    return value instanceof Double number && number == Math.rint(number)
        ? Long.toString(number.longValue())
        : value.toString();
  }

  private static String reason(XPathExpressionException failure) {
    Throwable cause = failure.getCause() == null ? failure : failure.getCause();
    return cause.getMessage();
  }

  @Override
  public String toString() {
    return expression;
  }

  /** The namespaces of the prefixes. */
  private record Prefixes(Map<String, String> namespaces) implements NamespaceContext {

    @Override
    public String getNamespaceURI(String prefix) {
      return namespaces.getOrDefault(prefix, XMLConstants.NULL_NS_URI);
    }

    @Override
    public String getPrefix(String namespace) {
      throw new UnsupportedOperationException("XPath asks for namespaces only");
    }

    @Override
    public Iterator<String> getPrefixes(String namespace) {
      throw new UnsupportedOperationException("XPath asks for namespaces only");
    }
  }
}
