// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Modules;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The snippets in the guide are those that are compiled and run here. */
class GuideTest {

  private static final Path SOURCES = Path.of("src/test/java/dev/cachette/examples/guide");

  private static final Path PAGES = Path.of("../docs/guide");

  private static final Path WEB =
      Path.of(
          "../examples-web/src/test/java/dev/cachette/examples/web/HarbourApplicationTest.java");

  @ParameterizedTest
  @ValueSource(
      strings = {
        "requests",
        "answers",
        "assertions",
        "explanations",
        "faults",
        "timing",
        "applications",
        "cassettes",
        "matching",
        "secrets",
        "drift",
        "stubs",
        "openapi",
        "settings",
        "junit",
        "frameworks"
      })
  void snippetsAreCompiled(String page) throws IOException {
    String name = Character.toUpperCase(page.charAt(0)) + page.substring(1) + "GuideTest.java";

    assertFalse(Guide.page(page).names("snippet").isEmpty());
    String web = page.equals("applications") ? Files.readString(WEB) : "";
    Guide.page(page).assertSnippets(Files.readString(SOURCES.resolve(name)) + web);
  }

  /** The snippet on cases is a test of the web example. */
  @Test
  void theCasesOfThePageAreThoseOfTheExamples() throws IOException {
    Guide.page("cases")
        .assertSnippets(Files.readString(WEB.resolveSibling("HarbourCasesTest.java")));
  }

  /** The snippets on identity are of tests with Spring Security. */
  @Test
  void theLoginOfThePageIsThatOfTheExamples() throws IOException {
    Path tests = Path.of("../examples-login/src/test/java/dev/cachette/examples/login");
    Guide.page("identity")
        .assertSnippets(
            Files.readString(tests.resolve("DeskLoginTest.java"))
                + Files.readString(tests.resolve("DeskCasesTest.java")));
  }

  /** The snippet on the fault sweep is a test of the examples. */
  @Test
  void theSweepOfThePageIsThatOfTheExamples() throws IOException {
    Guide.page("sweep")
        .assertSnippets(Files.readString(SOURCES.resolve("../ArrivalFaultsTest.java")));
  }

  /** The snippets on contracts are of two tests that write and verify the same contract. */
  @Test
  void theContractOfThePageIsThatOfTheExamples() throws IOException {
    String page = Files.readString(PAGES.resolve("contracts.md"));
    String consumer = Files.readString(SOURCES.resolve("../BerthContractTest.java"));
    String provider =
        Files.readString(
            Path.of(
                "../examples-web/src/test/java/dev/cachette/examples/berths",
                "BerthContractsTest.java"));
    String contract =
        Files.readString(Path.of("src/test/contracts/harbour-desk--berths.contract.yaml"));

    Guide.page("contracts").assertSnippets(consumer + provider);
    assertTrue(
        page.contains(contract.substring(0, contract.indexOf("  - name: book a berth at last"))));
  }

  /** Each message in the headings of the page is one that the code can produce. */
  @Test
  void theFailuresOfThePageAreThoseOfTheCode() throws IOException {
    String literals = literals();
    List<String> headings =
        Files.readAllLines(PAGES.resolve("failures.md")).stream()
            .filter(line -> line.startsWith("## "))
            .map(line -> line.substring(3).replace("`", ""))
            .toList();

    assertEquals(13, headings.size());
    for (String heading : headings) {
      for (String part : heading.split("…")) {
        assertTrue(literals.contains(part.strip()), part);
      }
    }
  }

  @Test
  void theIndexHasEveryPage() throws IOException {
    String index = Files.readString(PAGES.resolve("README.md"));
    try (Stream<Path> pages = Files.list(PAGES)) {
      for (Path page : pages.filter(it -> !it.endsWith("README.md")).toList()) {
        assertTrue(index.contains("(" + page.getFileName() + ")"), page::toString);
      }
    }
  }

  @Test
  void theTestOfTheReadmeIsRun() throws IOException {
    String test = Files.readString(SOURCES.resolve("../TidesTest.java"));

    String shown = test.substring(test.indexOf("import")).replaceFirst("/\\*\\*.*\\*/\n", "");
    assertTrue(
        Files.readString(Path.of("../README.md")).contains("```java\n" + shown + "```"), shown);
  }

  /** Returns the string literals of modules, concatenated where the code concatenates them. */
  private static String literals() throws IOException {
    StringBuilder all = new StringBuilder();
    for (String module : Modules.OURS) {
      try (Stream<Path> files = Files.walk(Path.of("..", module, "src/main/java"))) {
        for (Path file : files.filter(it -> it.toString().endsWith(".java")).toList()) {
          all.append(Files.readString(file).replaceAll("\"\\s*\\+\\s*\"", ""));
        }
      }
    }
    return all.toString().replace("\\\"", "\"");
  }
}
