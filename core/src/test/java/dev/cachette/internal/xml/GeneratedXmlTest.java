// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Generator;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** XML that is generated: equal in other words, different when changed, refused when cut. */
class GeneratedXmlTest {

  private static final int CASES = 1_000;

  @Test
  void theSameDocumentInOtherWordsDoesNotDiffer() throws Exception {
    for (int seed = 0; seed < CASES; seed++) {
      GeneratedElement root = GeneratedElement.of(new Generator(seed), 3);
      String one = root.written(new Random(seed), "h");
      String other = root.written(new Random(seed + 1L), "x");

      assertEquals(List.of(), differences(one, other), "seed " + seed + "\n" + one + "\n" + other);
    }
  }

  @Test
  void aChangedDocumentDiffers() throws Exception {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      GeneratedElement root = GeneratedElement.of(generator, 3);
      String before = root.written(new Random(seed), "h");
      root.any(generator).change(generator);
      String after = root.written(new Random(seed), "h");

      assertFalse(differences(before, after).isEmpty(), before + "\n" + after);
    }
  }

  @Test
  void aCutDocumentIsMalformed() {
    for (int seed = 0; seed < 100; seed++) {
      String whole = GeneratedElement.of(new Generator(seed), 2).written(new Random(seed), "h");
      for (int end = 0; end < whole.length() - 1; end++) {
        String cut = whole.substring(0, end);
        assertThrows(Xml.MalformedXml.class, () -> Xml.parse(cut), cut);
      }
    }
  }

  private static List<Difference> differences(String one, String other) throws Exception {
    return XmlComparison.differences(
        Xml.parse(one).getDocumentElement(), Xml.parse(other).getDocumentElement());
  }
}
