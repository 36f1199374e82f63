package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertFalse;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The snippets in the guide are those that are compiled and run here. */
class GuideTest {

  private static final Path SOURCES = Path.of("src/test/java/dev/cachette/examples/guide");

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
        "openapi"
      })
  void snippetsAreCompiled(String page) throws IOException {
    String name = Character.toUpperCase(page.charAt(0)) + page.substring(1) + "GuideTest.java";

    assertFalse(Guide.page(page).names("snippet").isEmpty());
    String web = page.equals("applications") ? Files.readString(WEB) : "";
    Guide.page(page).assertSnippets(Files.readString(SOURCES.resolve(name)) + web);
  }
}
