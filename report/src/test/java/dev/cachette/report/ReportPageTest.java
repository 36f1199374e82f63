// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.deque.html.axecore.results.Rule;
import com.deque.html.axecore.selenium.AxeBuilder;
import dev.cachette.control.Browser;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;

/** The report in a real browser, from disk: as a person uses it. */
@Tag("browser")
class ReportPageTest {

  @TempDir static Path folder;

  private static Browser browser;
  private static String page;

  @BeforeAll
  static void runTheArrival() throws Exception {
    assumeTrue(Browser.isHere(), "needs chromium and chromedriver");
    Runs.run("arrival", folder, folder);
    page = folder.resolve("index.html").toUri().toString();
    browser = new Browser();
  }

  @AfterAll
  static void closeBrowser() {
    if (browser != null) {
      browser.close();
    }
  }

  @BeforeEach
  void openPage() {
    browser.driver().manage().window().setSize(new Dimension(1280, 800));
    browser.open(page);
    browser.awaitText("#overview", "Tests");
  }

  private static void openTest(String name) {
    browser.type("#tests input", name);
    browser.click("#tests-list details > summary");
  }

  @Test
  void showsTheTestsThatFailedFirst() {
    assertTrue(browser.find("#tests-list details:first-of-type").getText().startsWith("failed"));
    browser.awaitText("#overview", "Unexpected calls");
  }

  @Test
  void opensATestWithItsTimeLine() {
    browser.type("#tests input", "repeatsABooking");
    browser.awaitText("#tests [role=status]", "1 test of 10");
    browser.click("#tests-list details > summary");

    browser.awaitText("#tests-list .line", "again, after");
    assertEquals(2, browser.all("details.call").size());
    assertTrue(browser.all("details.call svg.bar rect").size() >= 4);
  }

  @Test
  void opensACallWithItsMessages() {
    openTest("repeatsABooking");
    browser.click("details.call:last-of-type > summary");

    browser.awaitText("details.call[open] .messages", "{\"berth\":\"B-4\"}");
    browser.awaitText("details.call[open] .messages", "book a berth");
  }

  @Test
  void findsTestsByUrlAndByStub() {
    browser.type("#tests input", "customs.example");
    browser.awaitText("#tests-list", "meetsFaults");
    browser.type("#tests input", "tides, again");
    browser.awaitText("#tests-list", "declaresTooMuch");
  }

  @Test
  void choosesTestsWithRepeatedCalls() {
    browser.find("#tests select").sendKeys("tests with repeated calls");

    // The JDK repeats a call after a reset.
    browser.awaitText("#tests [role=status]", "2 tests of 10");
  }

  @Test
  void aLinkToATestOpensIt() {
    browser.click("#unexpected summary");
    browser.click("#unexpected a");

    browser.awaitText("#tests-list .problem", "Unexpected call");
    assertTrue(browser.address().contains("#test=BerthDeskTest.forgetsAStub"));
    browser.open(browser.address());
    browser.awaitText("#tests-list .problem", "Unexpected call");
  }

  @Test
  void isUsedByKeyboardAlone() {
    browser.find("#tests input").sendKeys("waitsForTheGate");
    browser.find("#tests-list details > summary").sendKeys(Keys.ENTER);
    browser.find("details.call > summary").sendKeys(Keys.SPACE);

    browser.awaitText("details.call[open] .messages", "Response 200");
  }

  @Test
  void showsWhatWasNeverUsed() {
    browser.awaitText("#stubs", "unreachable: \"tides, again\"");
    browser.awaitText("#descriptions", "1 of 3 documented responses were met (33 %)");
    browser.awaitText("#descriptions .never", "never");
    browser.awaitText("#faults", "connection reset");
    browser.awaitText("#cassettes", "stale");
    browser.awaitText("#sweeps", "1 of 3 runs with a fault went wrong.");
    browser.awaitText("#sweeps .never", "wrong 1/2");
    browser.awaitText("#sweeps .finding", HarbourRun.HOSTILE);
    browser.awaitText("#time", "2.5 s");
  }

  @Test
  void whatWasCalledStaysText() {
    openTest("isText");
    browser.click("details.call > summary");
    browser.awaitText("details.call[open] .messages", "onerror");

    assertEquals("HTTP calls of the tests", browser.driver().getTitle());
    assertEquals(List.of(), browser.all("img"));
  }

  @Test
  void loadsNothing() {
    assertEquals(0L, browser.run("return performance.getEntriesByType('resource').length"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"light", "dark"})
  void isAccessible(String scheme) {
    browser
        .driver()
        .executeCdpCommand(
            "Emulation.setEmulatedMedia",
            Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", scheme))));
    openTest("isText");
    browser.click("details.call > summary");
    browser.awaitText("details.call[open] .messages", "onerror");

    List<Rule> broken = new AxeBuilder().analyze(browser.driver()).getViolations();

    assertEquals(List.of(), broken.stream().map(Rule::getId).toList(), broken::toString);
  }

  @Test
  void fitsANarrowScreen() {
    browser
        .driver()
        .executeCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            Map.of("width", 360, "height", 800, "deviceScaleFactor", 1, "mobile", false));
    try {
      browser.open(page + "#test=BerthDeskTest.repeatsABooking");
      browser.awaitText("#tests-list .line", "again, after");

      Object wide =
          browser.run(
              "return [...document.querySelectorAll('body *')].filter(it => it.closest('.wide') =="
                  + " null && it.getBoundingClientRect().right > 360).map(it =>"
                  + " it.outerHTML).join('\\n"
                  + "')");
      assertEquals("", wide);
      assertEquals(true, browser.run("return document.documentElement.scrollWidth <= 360"));
    } finally {
      browser.driver().executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
    }
  }
}
