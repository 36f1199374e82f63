// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.StringReader;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;

/** Every character, by the parsers of the JDK and of Jackson. */
class EscapesTest {

  private static final int BLOCK = 0x1000;

  @Test
  void everyCharacterComesThroughXmlOrIsLeftOut() throws Exception {
    DocumentBuilder parser = DocumentBuilderFactory.newInstance().newDocumentBuilder();
    for (int first = 0; first <= Character.MAX_CODE_POINT; first += BLOCK) {
      String text = block(first);
      String escaped = Escapes.xml(text);
      String xml = "<a b=\"" + escaped + "\" c='" + escaped + "'>" + escaped + "</a>";
      Element root = parser.parse(new InputSource(new StringReader(xml))).getDocumentElement();

      String possible = possible(text);
      assertEquals(possible.replace('\r', '\n'), root.getTextContent());
      // A parser makes spaces of line ends in attributes.
      String inLine = possible.replaceAll("[\t\n\r]", " ");
      assertEquals(inLine, root.getAttribute("b"));
      assertEquals(inLine, root.getAttribute("c"));
    }
  }

  /** XML 1.0 section 2.2. */
  private static String possible(String text) {
    StringBuilder possible = new StringBuilder();
    text.codePoints()
        .filter(
            c ->
                c == 0x9
                    || c == 0xa
                    || c == 0xd
                    || c >= 0x20 && c <= 0xd7ff
                    || c >= 0xe000 && c <= 0xfffd
                    || c >= 0x10000)
        .forEach(possible::appendCodePoint);
    return possible.toString();
  }

  @Test
  void everyCharacterComesThroughJson() throws Exception {
    ObjectMapper mapper = new ObjectMapper();
    for (int first = 0; first <= Character.MAX_CODE_POINT; first += BLOCK) {
      String text = block(first);

      assertEquals(text, mapper.readTree('"' + Escapes.json(text) + '"').asText());
    }
  }

  private static String block(int first) {
    StringBuilder text = new StringBuilder();
    for (int at = first; at < first + BLOCK; at++) {
      text.appendCodePoint(at);
    }
    return text.toString();
  }
}
