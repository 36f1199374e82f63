// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The values that are found in bodies, with their names, in the file {@code values.txt}: a media
 * type, a body, an arrow, and the body with each value replaced by its name in upper case.
 */
class BodyValuesTest {

  static Stream<String> lines() throws Exception {
    try (InputStream in = BodyValuesTest.class.getResourceAsStream("/values.txt")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8)
          .lines()
          .filter(line -> !line.isBlank() && !line.startsWith("#"));
    }
  }

  private static String raw(String line) {
    return line.replace("\\t", "\t").replace("\\r", "\r").replace("\\n", "\n");
  }

  private static String shown(String text) {
    return text.replace("\t", "\\t").replace("\r", "\\r").replace("\n", "\\n");
  }

  @ParameterizedTest
  @MethodSource("lines")
  void eachValueHasItsName(String line) {
    String[] sides = line.split(" =>", 2);
    String[] given = sides[0].split(" \\| ", 2);
    BodyType type = given[0].equals("-") ? BodyType.NONE : BodyType.of(given[0]);
    String body = raw(given[1]);

    String changed =
        ValueFormats.change(
            type,
            body,
            value -> value.name().isEmpty() ? "*" : value.name().toUpperCase(Locale.ROOT));

    assertEquals(line, sides[0] + " => " + shown(changed));
    // What is not changed stays as it is, to the character.
    assertEquals(body, ValueFormats.change(type, body, Value::text));
  }
}
