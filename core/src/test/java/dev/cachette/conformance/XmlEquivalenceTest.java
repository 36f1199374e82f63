// SPDX-License-Identifier: Apache-2.0
package dev.cachette.conformance;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Generator;
import dev.cachette.internal.xml.GeneratedElement;
import dev.cachette.internal.xml.Xml;
import dev.cachette.internal.xml.XmlComparison;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.xmlunit.builder.DiffBuilder;

/** Another implementation calls the same pairs of XML documents similar. */
class XmlEquivalenceTest {

  private static final int CASES = 400;

  @Test
  void pairsAreAsSimilarAsElsewhere() throws Exception {
    int similar = 0;
    for (int seed = 0; seed < CASES; seed++) {
      GeneratedElement root = GeneratedElement.of(new Generator(seed), 2);
      String one = root.written(new Random(seed), "h");
      String other =
          seed % 2 == 0
              ? root.written(new Random(seed + 1L), "x")
              : GeneratedElement.of(new Generator(seed / 20), 2).written(new Random(seed), "h");

      boolean elsewhere =
          !DiffBuilder.compare(one)
              .withTest(other)
              .ignoreComments()
              .ignoreWhitespace()
              .checkForSimilar()
              .build()
              .hasDifferences();

      boolean here =
          XmlComparison.differences(
                  Xml.parse(one).getDocumentElement(), Xml.parse(other).getDocumentElement())
              .isEmpty();
      assertEquals(elsewhere, here, "seed " + seed + "\n" + one + "\n" + other);
      similar += here ? 1 : 0;
    }
    assertEquals(true, similar > CASES / 4 && similar < CASES * 3 / 4, "similar: " + similar);
  }
}
