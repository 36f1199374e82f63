// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.deque.html.axecore.selenium.AxeBuilder;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;

/** Cases on the live page, in a real browser. */
class CasesPageTest extends OpenPage {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  private static final String CAPTURED =
      """
      [{"number": 1, "name": "get-tides", "file": "cases/get-tides.har",
        "incoming": ["GET /tides?<b>day</b>"], "outcome": "200",
        "outgoing": ["GET https://tides.example/v1/tides  ->  200"], "varying": ["$.id"],
        "change": "new"}]
      """;

  private static final String REPLAYED =
      """
      [{"name": "get-tides", "file": "cases/get-tides.har", "calls": ["GET /tides"], "same": false,
        "updated": false, "milliseconds": 7,
        "findings": [{"kind": "response", "call": "GET /tides", "place": "body $.high",
                      "expected": "\\"04:10\\"", "actual": "<i>missing</i>"}]},
       {"name": "get-berths", "file": "cases/get-berths.har", "calls": ["GET /berths"],
        "same": true, "updated": false, "milliseconds": 3}]
      """;

  private final List<String> done = new CopyOnWriteArrayList<>();

  /** Cases that note what is done to them. */
  private CaseControl cases(String json) {
    return new CaseControl() {
      @Override
      public JsonNode cases() {
        try {
          return MAPPER.readTree(json);
        } catch (JsonProcessingException impossible) {
          throw new IllegalStateException(impossible);
        }
      }

      @Override
      public void rename(long number, String name) {
        done.add("rename " + number + " " + name);
      }

      @Override
      public void drop(long number) {
        done.add("drop " + number);
      }

      @Override
      public void markVarying(long number, String place) {
        if (!place.startsWith("$")) {
          throw new IllegalArgumentException("\"" + place + "\" is not a place.");
        }
        done.add("vary " + number + " " + place);
      }
    };
  }

  private void show(String json) {
    port.close();
    openPort(null, it -> it.cases(cases(json)));
    browser.open(control + "/#/cases");
  }

  @Test
  void casesAreNamedMarkedAndDropped() {
    show(CAPTURED);

    browser.awaitText("#case-count", "1 case");
    assertTrue(browser.text(".cases li").contains("GET /tides?<b>day</b>"));
    assertEquals(0, new AxeBuilder().analyze(browser.driver()).getViolations().size());
    browser.run("document.querySelector('input[aria-label^=Name]').value = 'tides of today'");
    browser.press("Name");
    browser.run("document.querySelector('input[placeholder]').value = 'id'");
    browser.press("Varies");
    browser.awaitText(".cases [role=alert]", "is not a place.");
    browser.run("document.querySelector('input[placeholder]').value = '$.id'");
    browser.press("Varies");
    browser.press("Drop");

    browser.await("all is done", () -> done.size() == 3);
    assertEquals(List.of("rename 1 tides of today", "vary 1 $.id", "drop 1"), done);
  }

  @Test
  void replayedCasesHaveWhatDiffers() {
    show(REPLAYED);

    browser.awaitText("#case-count", "2 cases, 1 different");
    assertTrue(browser.text(".cases tbody tr").contains("<i>missing</i>"));
    assertEquals("different", browser.text(".outcome.unmet"));
    assertEquals(0, new AxeBuilder().analyze(browser.driver()).getViolations().size());
  }

  @Test
  void withoutCasesItSaysHowToCaptureSome() {
    browser.open(control + "/#/cases");

    browser.awaitText("#case-count", "Fix: cachette capture --control PORT");
  }
}
