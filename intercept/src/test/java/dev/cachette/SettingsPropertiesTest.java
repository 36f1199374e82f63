// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Settings by properties: every name, values, and what is refused. */
class SettingsPropertiesTest {

  private static final String MISSPELLED = "cachette.unusedStub";

  @AfterEach
  void clear() {
    System.clearProperty(MISSPELLED);
    System.clearProperty("cachette.seed");
  }

  @Test
  void everyPropertySetsItsSetting() {
    Map<String, String> properties =
        Map.ofEntries(
            Map.entry("cachette.unexpectedCalls", "warn"),
            Map.entry("cachette.unusedStubs", "FAIL"),
            Map.entry("cachette.maxRequestBody", "16MiB"),
            Map.entry("cachette.maxCalls", "12"),
            Map.entry("cachette.maxCallBodies", "3 GiB"),
            Map.entry("cachette.seed", "-7"),
            Map.entry("cachette.cassetteFolder", "tapes"),
            Map.entry("cachette.stubFolder", "stubs"),
            Map.entry("cachette.interception", "false"),
            Map.entry("cachette.servingThreads", "3"),
            Map.entry("cachette.page", "8099"),
            Map.entry("cachette.report", "target/cachette"));

    Settings settings = Settings.defaults().withProperties(properties::get);

    assertEquals(UnexpectedCalls.WARN, settings.unexpectedCalls());
    assertEquals(UnusedStubs.FAIL, settings.unusedStubs());
    assertEquals(16 << 20, settings.maxRequestBody());
    assertEquals(12, settings.maxCalls());
    assertEquals(3L << 30, settings.maxCallBodies());
    assertEquals(-7, settings.seed());
    assertEquals(Path.of("tapes"), settings.cassetteFolder());
    assertEquals(Path.of("stubs"), settings.stubFolder());
    assertEquals(false, settings.interception());
    assertEquals(3, settings.servingThreads());
    assertEquals(8099, settings.livePage().orElseThrow());
    assertEquals(Path.of("target", "cachette"), settings.report().orElseThrow());
  }

  @Test
  void codeWins() {
    Map<String, String> properties = Map.of("cachette.seed", "7");

    assertEquals(5, Settings.defaults().seed(5).withProperties(properties::get).seed());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "unexpectedCalls | maybe",
        "unusedStubs | ''",
        "maxRequestBody | -1",
        "maxRequestBody | 4GiB",
        "maxRequestBody | 4MB",
        "maxCalls | 0",
        "maxCalls | 1e3",
        "maxCallBodies | 99999999999999999999",
        "seed | 0x7",
        "interception | on",
        "page | 70000",
        "page | none",
        "servingThreads | many"
      })
  void anInvalidValueIsRefusedWithItsName(String setting, String value) {
    String name = "cachette." + setting;

    IllegalArgumentException refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> Settings.defaults().withProperties(asked -> asked.equals(name) ? value : null));

    assertTrue(
        refused
            .getMessage()
            .startsWith("The property " + name + " is \"" + value + "\". Allowed: "),
        refused::getMessage);
  }

  @Test
  void systemPropertiesApplyToEverySession() {
    System.setProperty("cachette.seed", "many");

    IllegalArgumentException refused = assertThrows(IllegalArgumentException.class, Cachette::open);

    assertTrue(refused.getMessage().contains("cachette.seed is \"many\""), refused::getMessage);
  }

  @Test
  void aMisspelledSystemPropertyIsRefusedWithTheLikelyOne() {
    System.setProperty(MISSPELLED, "FAIL");

    IllegalArgumentException refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> Cachette.open(Settings.defaults().withoutInterception()));

    assertTrue(
        refused
            .getMessage()
            .startsWith(
                "Unknown property \"cachette.unusedStub\" in the system properties. Did you mean"
                    + " \"cachette.unusedStubs\"? Allowed: cachette.unusedStubs, "),
        refused::getMessage);
  }
}
