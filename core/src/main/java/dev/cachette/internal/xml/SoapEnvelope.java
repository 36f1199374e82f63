// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import java.util.Optional;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/**
 * A SOAP envelope.
 *
 * @param version {@code 1.1} or {@code 1.2}
 * @param bodyElement the first element in its body; empty if there is none
 */
public record SoapEnvelope(String version, Optional<Name> bodyElement) {

  private static final String SOAP_11 = "http://schemas.xmlsoap.org/soap/envelope/";
  private static final String SOAP_12 = "http://www.w3.org/2003/05/soap-envelope";

  /** Returns the envelope of a document; empty if it is not an envelope. */
  public static Optional<SoapEnvelope> in(Document document) {
    Element root = document.getDocumentElement();
    boolean is11 = SOAP_11.equals(root.getNamespaceURI());
    boolean is12 = SOAP_12.equals(root.getNamespaceURI());
    if (!root.getLocalName().equals("Envelope") || !is11 && !is12) {
      return Optional.empty();
    }
    return Optional.of(new SoapEnvelope(is11 ? "1.1" : "1.2", bodyElement(root)));
  }

  private static Optional<Name> bodyElement(Element envelope) {
    Node body = envelope.getElementsByTagNameNS(envelope.getNamespaceURI(), "Body").item(0);
    Node child = body == null ? null : body.getFirstChild();
    while (child != null && child.getNodeType() != Node.ELEMENT_NODE) {
      child = child.getNextSibling();
    }
    return Optional.ofNullable(child)
        .map(
            element ->
                new Name(Optional.ofNullable(element.getNamespaceURI()), element.getLocalName()));
  }

  /** The name of an element. */
  public record Name(Optional<String> namespace, String local) {

    /** Returns {@code {urn:customs}DeclareCargo}. */
    @Override
    public String toString() {
      return namespace.map(uri -> "{" + uri + "}").orElse("") + local;
    }
  }
}
