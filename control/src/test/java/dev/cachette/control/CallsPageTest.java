// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Gate;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** A person works with the calls on the live page, in a real browser. */
class CallsPageTest extends OpenPage {

  @Test
  void callsArriveNewestFirst() throws Exception {
    look();
    callTides();
    awaitRows(1);
    call("POST", "/v1/bookings", "{}");
    awaitRows(2);

    assertTrue(browser.text(".rows .row:first-child").contains("POST"));
    assertTrue(browser.text(".rows .row:last-child").contains("tides of today"));
    browser.awaitText("#count", "2 calls");
  }

  @Test
  void callsFromBeforeAreThereToo() throws Exception {
    callTides();
    callTides();

    look();

    awaitRows(2);
  }

  @Test
  void withoutCallsItSaysSo() {
    look();

    browser.awaitText(".empty", "No calls yet");
  }

  @Test
  void anUnexpectedCallIsExplained() throws Exception {
    look();
    call("GET", "/v1/tide", "");
    awaitRows(1);
    browser.awaitText(".rows .row", "unexpected");

    browser.click(".rows .row");

    browser.awaitText("#call .explanation", "closest stub \"tides of today\"");
  }

  @Test
  void whatDiffersIsShownByConditionAndInTheBody() throws Exception {
    net.stub("POST /v1/arrivals")
        .named("announce")
        .json("$.vessel.draught", 4.5)
        .json("$.vessel.flag", "MB")
        .header("x-desk", "7")
        .answer(text("booked"));
    look();
    call(
        "POST",
        "/v1/arrivals",
        "{\"vessel\":{\"draught\":9.5}}",
        "content-type",
        "application/json");
    awaitRows(1);
    browser.click(".rows .row");

    browser.awaitText("#call .closest caption", "announce (CallsPageTest.java:");
    browser.awaitText("#call .closest .misses", "4.5");
    browser.awaitText("#call .closest .holds", "method");
    browser.await(
        "the marks",
        () ->
            browser.all("#call .differs").stream()
                .map(WebElement::getText)
                .toList()
                .equals(List.of("differs", "flag is missing")));
  }

  @Test
  void aCallIsOpenedWithHeadersAndBodies() throws Exception {
    look();
    call("GET", "/v1/tides", "", "x-desk", "7");
    browser.click(".rows .row");

    browser.awaitText("#call h2", "GET https://berths.example/v1/tides");
    String shown = browser.text("#call");
    assertTrue(shown.contains("x-desk") && shown.contains("Marrow Bay"), shown);
    assertTrue(shown.contains("\"tides of today\"") || shown.contains("tides of today"), shown);
  }

  @Test
  void theAddressNamesTheCallAndTheFilter() throws Exception {
    call("POST", "/v1/bookings", "{}");
    callTides();
    look();
    browser.type("#filter", "stub:tides");
    awaitRows(1);
    browser.click(".rows .row");
    browser.await("address", () -> browser.address().contains("call=2"));
    String sent = browser.address();
    assertTrue(sent.contains("filter=stub"), sent);

    browser.open(sent);

    browser.awaitText("#call h2", "/v1/tides");
    awaitRows(1);
    assertEquals("stub:tides", browser.find("#filter").getDomProperty("value"));
  }

  /** A browser opens six connections to a host, and keeps pages that were left. */
  @Test
  void callsArriveHoweverOftenThePageIsLeft() throws Exception {
    for (int visit = 1; visit <= 8; visit++) {
      look();
      browser.driver().get("about:blank");
      browser.driver().navigate().back();
      callTides();
      awaitRows(visit);
    }
  }

  @Test
  void backLeadsToTheListAgain() throws Exception {
    callTides();
    look();
    browser.click(".rows .row");
    browser.awaitText("#call h2", "/v1/tides");

    browser.driver().navigate().back();

    browser.await("closed", () -> !browser.find("#call").isDisplayed());
  }

  @Test
  void filtersSelect() throws Exception {
    callTides();
    call(
        "POST",
        "/v1/bookings",
        "{\"vessel\":{\"name\":\"Kittiwake\"}}",
        "content-type",
        "application/json",
        "x-desk",
        "7");
    call("GET", "/v1/pilots?port=marrow", "");
    look();
    awaitRows(3);

    for (String[] each :
        new String[][] {
          {"method:POST", "1"},
          {"status:2xx", "2"},
          {"status:501", "1"},
          {"is:unexpected", "1"},
          {"-is:unexpected", "2"},
          {"path:/v1/t*", "1"},
          {"host:berths.example", "3"},
          {"header:x-desk=7", "1"},
          {"header:x-desk=8", "0"},
          {"json:/vessel/name=kitti*", "1"},
          {"marrow", "1"},
          {"stub:\"book a berth\" method:POST", "1"},
          {"slower:1h", "0"},
          {"", "3"}
        }) {
      browser.type("#filter", each[0]);
      browser.keys(Keys.ENTER);
      browser.await(
          each[0] + " selects " + each[1],
          () ->
              browser.all(".rows .row").size() == Integer.parseInt(each[1])
                  && browser.text("#count").startsWith(each[1] + " "));
    }
  }

  @Test
  void aWrongFilterSaysWhere() {
    look();

    browser.type("#filter", "is:unexpected status:4x");
    browser.keys(Keys.ENTER);

    browser.awaitText("#filter-problem", "column 22: status:4x cannot be read. Fix: ");
    browser.type("#filter", "colour:red");
    browser.keys(Keys.ENTER);
    browser.awaitText("#filter-problem", "there is no field colour. Fields: method, status");
  }

  @Test
  void aFilterIsCompleted() throws Exception {
    call("GET", "/v1/pilots", "");
    callTides();
    look();
    awaitRows(2);

    browser.type("#filter", "i");
    browser.awaitText("#suggestions", "is:");
    browser.keys(Keys.ARROW_DOWN, Keys.ENTER);
    browser.awaitText("#suggestions", "is:unexpected");
    browser.keys("un", Keys.ARROW_DOWN, Keys.ENTER);

    awaitRows(1);
    assertEquals("is:unexpected", browser.find("#filter").getDomProperty("value"));
  }

  @Test
  void pauseHoldsCallsBack() throws Exception {
    look();
    callTides();
    awaitRows(1);
    browser.press("Pause");
    callTides();
    callTides();
    browser.awaitText("#count", "1 call, 2 more waiting");
    assertEquals(1, browser.all(".rows .row").size());

    browser.press("Resume");

    awaitRows(3);
  }

  @Test
  void clearForgetsTheCalls() throws Exception {
    callTides();
    look();
    awaitRows(1);

    browser.press("Clear");

    awaitRows(0);
    callTides();
    awaitRows(1);
  }

  @Test
  void aHeldCallIsShownUntilItIsAnswered() throws Exception {
    Gate gate = new Gate();
    net.stub("GET /v1/held").answer(text("high").heldBy(gate));
    look();
    var pending =
        client.sendAsync(
            HttpRequest.newBuilder(URI.create(base + "/v1/held")).build(),
            HttpResponse.BodyHandlers.ofString());
    awaitRows(1);
    browser.type("#filter", "is:open");
    browser.keys(Keys.ENTER);
    awaitRows(1);
    browser.type("#filter", "");
    browser.keys(Keys.ENTER);
    awaitRows(1);

    gate.open();

    assertEquals("high", pending.join().body());
    browser.await("took", () -> browser.text(".rows .row .took").endsWith("s"));
    browser.find("#calls").sendKeys(Keys.ARROW_DOWN, Keys.ENTER);
    for (String stage :
        List.of("matched", "held by a gate", "released", "first byte", "answered")) {
      browser.awaitText("#call .timeline", stage);
    }
  }

  @Test
  void itWorksByKeyboardAlone() throws Exception {
    callTides();
    call("POST", "/v1/bookings", "{}");
    look();
    awaitRows(2);
    browser.run("document.getElementById('calls').focus()");

    browser.keys(Keys.ARROW_DOWN);
    browser.keys(Keys.ARROW_DOWN);
    browser.keys(Keys.ENTER);

    browser.awaitText("#call h2", "GET https://berths.example/v1/tides");
    browser.keys(Keys.ESCAPE);
    browser.await("closed", () -> !browser.find("#call").isDisplayed());
    assertEquals("calls", browser.driver().switchTo().activeElement().getDomAttribute("id"));
  }

  @Test
  void aBodyIsSearched() throws Exception {
    callTides();
    look();
    browser.click(".rows .row");

    browser.type("#call input[type=search]", "16:");

    browser.awaitText("#call .bodytools [role=status]", "found once");
    assertEquals("16:", browser.text("#call mark"));
  }

  @Test
  void bodiesAreLaidOutByTheirFormat() throws Exception {
    byte[] picture =
        Base64.getDecoder()
            .decode(
                "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR4nGNg"
                    + "YPj/HwADAgH/p2uXHwAAAABJRU5ErkJggg==");
    net.stub("GET /v1/chart").answer(bytes("image/png", picture));
    net.stub("GET /v1/log").answer(bytes("application/octet-stream", new byte[] {0, 72, 105, -1}));
    net.stub("GET /v1/notice")
        .answer(text("<a><b>low</b><c/></a>").header("content-type", "text/xml"));
    call("GET", "/v1/chart", "");
    call("GET", "/v1/log", "");
    call("GET", "/v1/notice", "");
    call(
        "POST",
        "/v1/bookings",
        "vessel=Kittiwake&berth=Pell+Quay",
        "content-type",
        "application/x-www-form-urlencoded");

    call(
        "POST",
        "/v1/manifests",
        "--quay\r\n"
            + "Content-Disposition: form-data; name=\"vessel\"\r\n\r\n"
            + "Kittiwake\r\n"
            + "--quay\r\n"
            + "Content-Disposition: form-data; name=\"cargo\"\r\n\r\n"
            + "herring\r\n"
            + "--quay--\r\n",
        "content-type",
        "multipart/form-data; boundary=quay");

    browser.open(control + "/#/calls?call=1");
    browser.await(
        "the picture",
        () -> browser.find("#call .body img").getDomProperty("naturalWidth").equals("1"));
    browser.open(control + "/#/calls?call=2");
    browser.awaitText("#call .body pre", "000000  00 48 69 ff");
    assertTrue(browser.text("#call .body pre").endsWith(".Hi."));
    browser.open(control + "/#/calls?call=3");
    browser.awaitText("#call .body pre", "<a>\n  <b>low</b>\n  <c/>\n</a>");
    browser.open(control + "/#/calls?call=4");
    browser.awaitText("#call .body td", "Kittiwake");
    browser.awaitText("#call .body tr:last-child td", "Pell Quay");
    browser.open(control + "/#/calls?call=5");
    browser.awaitText("#call .bodypart:nth-child(2)", "form-data; name=\"cargo\"");
    browser.awaitText("#call .bodypart:nth-child(2) pre", "herring");
  }
}
