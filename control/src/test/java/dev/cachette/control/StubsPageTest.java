// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** A person works with the stubs on the live page, in a real browser. */
class StubsPageTest extends OpenPage {

  @Test
  void theStubsInForceAreListed() throws Exception {
    callTides();
    look();

    browser.click("nav a[data-view=stubs]");

    browser.awaitText("#stubs tbody", "tides of today");
    String shown = browser.text("#stubs tbody");
    assertTrue(shown.contains("OpenPage.java:"), shown);
    assertTrue(shown.contains("not called yet"), shown);
    browser.awaitText("#stub-count", "2 stubs");
  }

  @Test
  void aUsedUpStubSaysSo() throws Exception {
    net.stub("GET /v1/once").named("only once").answer(text("a")).times(1);
    call("GET", "/v1/once", "");
    browser.open(control + "/#/stubs");

    browser.awaitText("#stubs .waits", "already used up by 1 earlier call");
  }

  @Test
  void aStubIsAddedChangedAndRemoved() throws Exception {
    browser.open(control + "/#/stubs");
    browser.type(
        "#stub-text", "stubs: { name: pilots, request: GET /v1/pilots, answer: { json: [1] } }");
    browser.press("Add");
    browser.awaitText("#stubs tbody", "pilots");
    assertEquals("[1]", call("GET", "/v1/pilots", "").body());

    browser.click("button[aria-label='Edit pilots']");
    browser.awaitText(".editor h2", "number 1");
    browser.type(
        "#stub-text", "stubs: { name: pilots, request: GET /v1/pilots, answer: { json: [2] } }");
    browser.press("Replace");
    browser.awaitText(".editor h2", "Add stubs");
    assertEquals("[2]", call("GET", "/v1/pilots", "").body());

    browser.click("button[aria-label='Remove pilots']");
    browser.await("removed", () -> !browser.text("#stubs tbody").contains("pilots"));
    assertEquals(501, call("GET", "/v1/pilots", "").statusCode());
  }

  @Test
  void aStubIsSwitchedOffAndOnAgain() throws Exception {
    browser.open(control + "/#/stubs");
    browser.type(
        "#stub-text", "stubs: { name: pilots, request: GET /v1/pilots, answer: { json: [1] } }");
    browser.press("Add");
    browser.click("button[aria-label='Switch off pilots']");
    browser.awaitText("#stubs tbody", "switched off");
    assertEquals(501, call("GET", "/v1/pilots", "").statusCode());

    browser.click("button[aria-label='Switch on pilots']");
    browser.await("on", () -> !browser.text("#stubs tbody").contains("switched off"));
    assertEquals("[1]", call("GET", "/v1/pilots", "").body());

    browser.click("button[aria-label='Switch off pilots']");
    browser.click("button[aria-label='Remove pilots']");
    browser.await("removed", () -> !browser.text("#stubs tbody").contains("pilots"));
  }

  @Test
  void aStubFileIsCompleted() throws Exception {
    browser.open(control + "/#/stubs");
    browser.await(
        "the editor", () -> browser.find("#stub-text").getDomProperty("value").length() > 9);
    browser.type("#stub-text", "stu");
    browser.awaitText("#stub-offers li", "stubs");
    browser.keys(Keys.ARROW_DOWN, Keys.ENTER, "\n  - re");
    browser.awaitText("#stub-offers li", "request");
    browser.keys(Keys.ARROW_DOWN, Keys.TAB, "GET /v1/pilots\n    ");
    browser.keys(Keys.chord(Keys.CONTROL, " "));
    browser.awaitText("#stub-offers", "answer");
    assertFalse(browser.text("#stub-offers").contains("METHOD URL-template"), "used already");
    browser.keys("ans");
    browser.keys(Keys.ARROW_DOWN, Keys.ENTER, "\n      tex");
    browser.awaitText("#stub-offers li", "text");
    browser.keys(Keys.ESCAPE, "t: on duty");
    browser.press("Add");

    browser.awaitText("#stubs tbody", "GET /v1/pilots");
    assertEquals("on duty", call("GET", "/v1/pilots", "").body());
  }

  @Test
  void anUnreachableStubSaysWhy() {
    net.stub("GET /v1/tides").named("tides, first").answer(text("low"));
    net.stub("GET /v1/tides").named("tides, again").answer(text("high"));
    browser.open(control + "/#/stubs");

    browser.awaitText("#stubs tbody", "unreachable: \"tides, again\" (StubsPageTest.java:");
  }

  @Test
  void stubsOfTheSameNameAreKeptApart() throws Exception {
    browser.open(control + "/#/stubs");
    for (int number = 1; number <= 2; number++) {
      browser.type(
          "#stub-text",
          "stubs: { name: pilots, request: GET /v1/pilots, answer: { json: [" + number + "] } }");
      browser.press("Add");
      int added = number;
      browser.await(
          number + " added",
          () -> browser.all("button[aria-label='Remove pilots']").size() == added);
    }
    assertEquals("[2]", call("GET", "/v1/pilots", "").body());

    browser.all("button[aria-label='Remove pilots']").get(1).click();

    browser.await("one", () -> browser.all("button[aria-label='Remove pilots']").size() == 1);
    assertEquals("[1]", call("GET", "/v1/pilots", "").body());
  }

  @Test
  void invalidStubsSayLineAndColumn() {
    browser.open(control + "/#/stubs");
    browser.type("#stub-text", "stubs:\n  - request: GET /v1/pilots\nanswr: {}\n");
    browser.press("Add");

    browser.awaitText("#stub-problems", "line 3, column 1: ");
    browser.click("#stub-problems li:last-child button");
    assertEquals(
        "answr: {}",
        browser.run(
            "const t = document.getElementById('stub-text');"
                + " return t.value.slice(t.selectionStart, t.selectionEnd)"));
  }

  @Test
  void aStubIsMadeOfAnUnexpectedCall() throws Exception {
    call("GET", "/v1/pilots", "");
    look();
    browser.click(".rows .row");
    browser.press("Make a stub of it");
    browser.await(
        "draft", () -> browser.find("#stub-text").getDomProperty("value").contains("/v1/pilots"));

    browser.press("Add");

    browser.awaitText("#stubs tbody", "/v1/pilots");
    assertEquals("{}", call("GET", "/v1/pilots", "").body());
  }

  @Test
  void theCallsOfAStubAreAClickAway() throws Exception {
    callTides();
    call("POST", "/v1/bookings", "{}");
    browser.open(control + "/#/stubs");
    browser.awaitText("#stubs tbody", "tides of today");

    browser.press("1");

    awaitRows(1);
    assertTrue(browser.address().contains("/calls?filter=stub"), browser.address());
  }
}
