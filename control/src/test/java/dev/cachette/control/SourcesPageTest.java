// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Cassettes, API descriptions and messages on the live page, in a real browser. */
class SourcesPageTest extends OpenPage {

  @TempDir Path folder;

  @Test
  void warningsAreThereLatestFirst() {
    try (Cachette other = Cachette.open(Settings.defaults().withoutInterception())) {
      other.stub("GET /v1/charts").named("charts of <b>Marrow Bay</b>").answer(json("{}"));
    }

    browser.open(control + "/#/messages");

    browser.awaitText("#messages li:first-child", "charts of <b>Marrow Bay</b>");
    browser.awaitText("#message-count", "warning");
  }

  @Test
  void operationsAreThereWithWhatWasCalled() throws Exception {
    Path description = folder.resolve("berths.openapi.yaml");
    Files.writeString(
        description,
        """
        openapi: 3.0.3
        info: { title: Berths, version: "1" }
        paths:
          /v1/tides:
            get: { responses: { "200": { description: tides, content: { application/json: {} } } } }
          /v1/pilots: { get: { responses: { "200": { description: pilots } } } }
        """);
    net.describedBy("https://berths.example", description.toString());
    call("GET", "/v1/tides", "");
    call("GET", "/v1/tides", "");
    call("GET", "/v1/quays", "");

    browser.open(control + "/#/sources");

    browser.awaitText("#source-count", "0 cassettes, 1 API description");
    browser.awaitText(".sources caption", "1 of 2 operations called, and 1 call fit none of them");
    String shown = browser.text(".sources tbody");
    assertTrue(shown.contains("GET /v1/tides 200 (2)"), shown);
    assertTrue(shown.contains("GET /v1/pilots not called yet"), shown);
  }

  @Test
  void cassettesAreThereWithTheirExchanges() throws Exception {
    Path cassette = folder.resolve("arrival.har");
    Files.writeString(
        cassette,
        """
        {"log":{"version":"1.2","creator":{"name":"desk","version":"1"},"entries":[
        {"startedDateTime":"2031-04-02T04:10:00Z","time":1,"request":{"method":"GET",
        "url":"https://tides.example/v1/high?api_key=kF83hdkqPz71","httpVersion":"HTTP/1.1",
        "headers":[],"queryString":[],"cookies":[],"headersSize":-1,"bodySize":0},"response":{
        "status":200,"statusText":"OK","httpVersion":"HTTP/1.1","headers":[],"cookies":[],
        "content":{"size":5,"mimeType":"text/plain","text":"04:10"},"redirectURL":"",
        "headersSize":-1,"bodySize":5},"cache":{},"timings":{"send":0,"wait":1,"receive":0}}]}}
        """);
    net.cassette(cassette, CassetteSettings.defaults().mode(RecordingMode.REPLAY));
    net.stub("GET /v1/high").answer(json("{}"));
    call("GET", "/v1/high", "");

    browser.open(control + "/#/sources");

    browser.awaitText(".sources caption", "1 exchange; mode replay; recorded 2031-04-02");
    browser.awaitText(".sources tbody", "GET https://tides.example/v1/high");
    assertTrue(!browser.driver().getPageSource().contains("kF83hdkqPz71"));
    browser.press("Show");
    browser.awaitText("#count", "selected");
    assertEquals(
        "\"https://tides.example/v1/high\"", browser.find("#filter").getDomProperty("value"));
  }
}
