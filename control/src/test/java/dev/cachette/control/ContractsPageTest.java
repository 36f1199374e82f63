// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.deque.html.axecore.selenium.AxeBuilder;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;

/** Which versions work together, on the live page, in a real browser. */
class ContractsPageTest extends OpenPage {

  private static final String TABLES =
      """
      [{"consumer": "harbour-desk", "provider": "berths",
        "consumerVersions": [{"version": "2.1", "labels": ["main", "in <b>production</b>"]},
                             {"version": "2.0"}],
        "providerVersions": [{"version": "1.4"}],
        "cells": [{"consumerVersion": "2.1", "providerVersion": "1.4", "outcome": "unmet",
                   "at": "2031-04-02T08:15:00Z", "unmet": ["<i>book a berth</i>: $.price"]},
                  {"consumerVersion": "2.0", "providerVersion": "1.4", "outcome": "unknown"}]}]
      """;

  @Test
  void aStoreIsATableAndIsReadAgain() throws Exception {
    ObjectMapper mapper = new ObjectMapper();
    AtomicReference<JsonNode> store = new AtomicReference<>(mapper.readTree(TABLES));
    port.close();
    openPort(null, store::get);

    browser.open(control + "/#/contracts");

    browser.awaitText("#contract-count", "1 contract");
    assertEquals("@2.1 main in <b>production</b>", browser.text("tbody tr:first-child th"));
    assertEquals("not met 2031-04-02 08:15 UTC", browser.text("td.unmet").replace("\n", " "));
    assertEquals("not verified", browser.text("td.unknown"));
    assertTrue(browser.text(".reasons").contains("<i>book a berth</i>: $.price"));
    assertEquals(0, new AxeBuilder().analyze(browser.driver()).getViolations().size());

    store.set(mapper.readTree("[]"));
    browser.press("Refresh");
    browser.awaitText("#contract-count", "The store has no contracts.");
  }

  @Test
  void withoutAStoreItSaysHowToNameOne() {
    browser.open(control + "/#/contracts");

    browser.awaitText("#contract-count", "Fix: cachette serve --store STORE");
  }
}
