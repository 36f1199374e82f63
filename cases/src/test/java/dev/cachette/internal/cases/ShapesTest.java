// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;

/** The shapes of values that are made anew at each call. */
class ShapesTest {

  private static final Instant NOW = Instant.parse("2031-04-02T12:00:00Z");

  @ParameterizedTest
  @CsvFileSource(
      resources = "/dev/cachette/cases/shapes.txt",
      delimiter = '|',
      quoteCharacter = '\'')
  void templates(String text, String template) {
    assertEquals(template, Shapes.template(text, NOW));
  }

  @Test
  void generatedValuesAreAlike() {
    Random random = new Random(7);
    for (int count = 0; count < 2_000; count++) {
      Instant one = NOW.plusMillis(random.nextInt(60_000));
      Instant other = NOW.plusSeconds(86_400L * 400).plusNanos(random.nextInt(1_000_000_000));
      String first = text(random, one, count);
      String second = text(random, other, count);
      String template = Shapes.template(first, one);
      assertFalse(template.equals(first), () -> first + " has a shape");
      assertTrue(Shapes.isLike(template, second, other), () -> first + " is like " + second);
    }
  }

  private static String text(Random random, Instant now, int kind) {
    return switch (kind % 5) {
      case 0 -> "/v1/berths/" + new UUID(random.nextLong(), random.nextLong());
      case 1 -> now.toString();
      case 2 -> now.truncatedTo(ChronoUnit.SECONDS).toString() + " in the harbour";
      case 3 -> Long.toString(now.toEpochMilli());
      default -> "etag " + "a1" + String.format("%014x", random.nextLong() >>> 8);
    };
  }
}
