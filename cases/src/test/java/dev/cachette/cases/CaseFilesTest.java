// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files of cases that were changed by hand: what is wrong in them, and where. */
class CaseFilesTest {

  @TempDir static Path captured;
  @TempDir Path folder;

  private static String good;

  @BeforeAll
  static void capture() throws Exception {
    try (CapturedHarbour harbour = new CapturedHarbour(captured)) {
      harbour.capture(it -> it, url -> harbour.send(url + "/v1/arrivals/kittiwake", ""));
    }
    good = Files.readString(captured.resolve("get-v1-arrivals-kittiwake.har"));
  }

  @BeforeEach
  void copy() throws IOException {
    Files.writeString(folder.resolve("arrival.har"), good);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "\"_call\": \"incoming\" | \"_call\": \"inbound\" | arrival.har:9 is not an entry of a"
            + " case: _call is \"inbound\", but must be \"incoming\" or \"outgoing\"",
        "\"_call\": \"incoming\", | | _call is missing",
        "\"_call\": \"incoming\" | \"_call\": \"outgoing\" | There is no case in",
        "\"json\": [ | \"jsn\": [ | _varying/jsn is unknown. Allowed: path, query, headers, json",
        "\"$.at\" | \"$.at[\" | _varying/json: ",
        "\"json\": [ | \"json\": 1, \"fields\": [ | _varying/json is not an array of strings",
        "\"$.at\" | 1 | _varying/json is not an array of strings",
        "\"status\": 200 | \"status\": 0 | an incoming call needs a response",
        "\"entries\": [ | \"entries\": [], \"_old\": [ | is not a case: it has no entries",
        "\"version\": \"1.2\" | \"version\": \"7\" | version",
        "{ | { { | line 1, column"
      })
  void problemHasItsPlace(String old, String now, String message) throws IOException {
    Path file = folder.resolve("arrival.har");
    String changed =
        good.replaceFirst(Pattern.quote(old), Matcher.quoteReplacement(now == null ? "" : now));
    Files.writeString(file, changed);

    Throwable failure =
        assertThrows(
            RuntimeException.class, () -> Cases.in(folder).against("http://localhost:1").replay());

    assertTrue(failure.getMessage().contains(message), failure::getMessage);
  }

  @Test
  void missingFolderIsReported() {
    Throwable failure =
        assertThrows(IllegalArgumentException.class, () -> Cases.in("src/test/no-cases"));
    assertTrue(failure.getMessage().contains("Fix: capture cases with"), failure::getMessage);
  }

  @Test
  void unknownNameIsReported() {
    Throwable failure =
        assertThrows(
            IllegalStateException.class,
            () ->
                Cases.in(folder)
                    .against("http://localhost:1")
                    .only(name -> name.equals("departure"))
                    .replay());
    assertTrue(failure.getMessage().contains("with a name that only(...) accepts"));
  }

  @Test
  void unknownValueOfThePropertyIsReported() {
    System.setProperty(CaseReplay.PROPERTY, "yes");
    try {
      Throwable failure =
          assertThrows(
              IllegalArgumentException.class, () -> Cases.in(folder).against("http://localhost:1"));
      assertEquals(
          "The property cachette.cases is \"yes\". Allowed: update.", failure.getMessage());
    } finally {
      System.clearProperty(CaseReplay.PROPERTY);
    }
  }

  @Test
  void applicationThatIsNotThereIsAFinding() {
    var result = Cases.in(folder).against("http://localhost:1").replay();
    String text = result.different().get(0).explanation();
    assertTrue(text.contains("No response"), text);
    assertTrue(text.contains("http://localhost:1"), text);
  }
}
