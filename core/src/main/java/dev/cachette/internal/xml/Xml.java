// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.io.UnsupportedEncodingException;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Document;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** Parses XML with namespaces; external entities are never loaded. */
public final class Xml {

  /** A limit of the JDK's parser. */
  private static final String DEPTH = "http://www.oracle.com/xml/jaxp/properties/maxElementDepth";

  /** Trees are walked recursively; the same limit as for JSON. */
  private static final String MAX_DEPTH = "1000";

  private static final String TOO_DEEP = "JAXP00010006";

  private Xml() {}

  /**
   * Parses text.
   *
   * @throws MalformedXml if it is not well-formed
   */
  public static Document parse(String text) throws MalformedXml {
    return parse(new InputSource(new StringReader(text)));
  }

  /**
   * Parses bytes, in the charset that they declare.
   *
   * @throws MalformedXml if they are not well-formed
   */
  public static Document parse(byte[] bytes) throws MalformedXml {
    return parse(new InputSource(new ByteArrayInputStream(bytes)));
  }

  private static Document parse(InputSource source) throws MalformedXml {
    try {
      DocumentBuilder builder = Factory.SAFE.newDocumentBuilder();
      builder.setErrorHandler(new Throwing());
      return builder.parse(source);
    } catch (SAXParseException malformed) {
      throw new MalformedXml(
          String.format(
              "line %d, column %d: %s",
              malformed.getLineNumber(), malformed.getColumnNumber(), reason(malformed)));
    } catch (SAXException malformed) {
      throw new MalformedXml(malformed.getMessage());
    } catch (ParserConfigurationException impossible) {
      throw new IllegalStateException(impossible);
    } catch (UnsupportedEncodingException unknown) {
      throw new MalformedXml("its encoding \"" + unknown.getMessage() + "\" is unknown");
    } catch (IOException malformed) {
      // Bytes that are invalid in their declared charset; no other I/O happens here.
      throw new MalformedXml(malformed.getMessage());
    }
  }

  /** Returns the message without the number that the limits of the JDK have, in plain words. */
  private static String reason(SAXParseException malformed) {
    String message = String.valueOf(malformed.getMessage());
    return message.startsWith(TOO_DEEP)
        ? "its elements are nested more than " + MAX_DEPTH + " levels deep"
        : message.replaceFirst("^JAXP[0-9]+: ", "");
  }

  /** Thrown for text that is not well-formed XML; the message says where and why. */
  public static final class MalformedXml extends Exception {
    private static final long serialVersionUID = 1;

    MalformedXml(String message) {
      super(message);
    }
  }

  /** The JDK's own parser: one on the classpath may not support the limits set here. */
  private static final class Factory {
    static final DocumentBuilderFactory SAFE = create();

    private static DocumentBuilderFactory create() {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultInstance();
      factory.setNamespaceAware(true);
      factory.setCoalescing(true);
      factory.setIgnoringComments(true);
      try {
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      } catch (ParserConfigurationException impossible) {
        throw new IllegalStateException(impossible);
      }
      factory.setAttribute(XMLConstants.ACCESS_EXTERNAL_DTD, "");
      factory.setAttribute(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
      factory.setAttribute(DEPTH, MAX_DEPTH);
      factory.setExpandEntityReferences(false);
      return factory;
    }
  }

  /** Throws instead of printing. */
  private static final class Throwing implements ErrorHandler {
    @Override
    public void warning(SAXParseException harmless) {}

    @Override
    public void error(SAXParseException failure) throws SAXException {
      throw failure;
    }

    @Override
    public void fatalError(SAXParseException failure) throws SAXException {
      throw failure;
    }
  }
}
