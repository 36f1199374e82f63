// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Response;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Mistakes that test authors make, each a file in {@code src/test/resources/mistakes}: the
 * explanation names the cause in its first ten lines, and has about forty at most.
 */
class MistakesTest {

  private static final Path FOLDER = Path.of("src/test/resources/mistakes");
  private static final int FIRST = 10;
  private static final int MOST = 42;

  static Stream<Mistake> mistakes() throws IOException {
    try (Stream<Path> files = Files.list(FOLDER)) {
      return files.sorted().map(MistakesTest::read).toList().stream();
    }
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("mistakes")
  void theCauseIsInTheFirstTenLines(Mistake mistake) {
    Response response = mistake.respond();

    assertEquals(501, response.status(), response::text);
    List<String> lines = response.text().lines().toList();
    String start = String.join("\n", lines.subList(0, Math.min(FIRST, lines.size())));
    for (String phrase : mistake.phrases()) {
      assertTrue(start.contains(phrase), () -> "no <" + phrase + "> in\n" + response.text());
    }
    assertTrue(lines.size() <= MOST, response::text);
  }

  @Test
  void atLeast110MistakesAreTried() throws IOException {
    assertTrue(mistakes().count() >= 110);
  }

  private static Mistake read(Path file) {
    try {
      return Mistake.read(Files.readString(file));
    } catch (IOException unreadable) {
      throw new IllegalStateException(file.toString(), unreadable);
    }
  }
}
