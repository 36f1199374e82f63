// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.deque.html.axecore.results.Rule;
import com.deque.html.axecore.selenium.AxeBuilder;
import dev.cachette.Cachette;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Who may look at the live page, and how it is to look at, in a real browser. */
class PageQualityTest extends OpenPage {

  @TempDir Path folder;

  private static final Map<String, String> ROWS =
      Map.of("#/stubs", "#stubs tbody tr", "#/sources", ".sources tbody tr");

  @Test
  void theTokenIsAskedForOnceAndNotInTheAddress() throws Exception {
    port.close();
    openPort("low-water");
    callTides();
    browser.open(control + "/");
    browser.find("#token[open]");
    browser.type("#token-text", "high-water");
    browser.press("Open");
    browser.awaitText("#token-wrong", "not accepted");

    browser.type("#token-text", "low-water");
    browser.press("Open");

    awaitRows(1);
    browser.driver().navigate().refresh();
    awaitRows(1);
    assertTrue(browser.all("#token[open]").isEmpty());
    assertFalse(browser.address().contains("low-water"));
  }

  @Test
  void whatCallersSendStaysText() throws Exception {
    String hostile =
        "<img src=x onerror=\"document.title='taken'\"><style>body{display:none}</style>";
    call(
        "POST",
        "/v1/%3Cscript%3Edocument.title='taken'%3C/script%3E?q=%22onload=x",
        hostile,
        "x-note",
        "<b onclick=alert(1)>note</b>",
        "content-type",
        "text/html");
    net.stub("GET /v1/mark").named("<script>document.title='taken'</script>").answer(text(hostile));
    call("GET", "/v1/mark", "");
    look();
    awaitRows(2);
    for (int row = 1; row <= 2; row++) {
      browser.click(".rows .row:nth-child(" + row + ")");
      browser.awaitText("#call", "onerror");
    }
    browser.click("nav a[data-view=stubs]");
    browser.awaitText("#stubs tbody", "<script>");

    assertEquals("Stubs - Cachette", browser.driver().getTitle());
    assertTrue(browser.find("header").isDisplayed());
    assertEquals(
        0L, browser.run("return document.querySelectorAll('main script, main img').length"));
  }

  @Test
  void secretsAreMasked() throws Exception {
    call("GET", "/v1/tides?api_key=kF83hdkqPz71", "", "authorization", "Bearer kF83hdkqPz71");
    look();
    browser.click(".rows .row");
    browser.awaitText("#call", "authorization");

    assertFalse(browser.driver().getPageSource().contains("kF83hdkqPz71"));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "/calls",
        "/calls/1",
        "/calls/1?as=curl",
        "/calls/1?as=stub",
        "/calls/1?as=java",
        "/stubs",
        "/stubs/all",
        "/verdict",
      })
  void noOperationTellsASecret(String operation) throws Exception {
    String secret = "kF83hdkqPz71";
    net.stub("POST /v1/keys?api_key=" + secret)
        .answer(
            json("{\"access_token\":\"" + secret + "\"}").header("set-cookie", "sid=" + secret));
    call(
        "POST",
        "/v1/keys?api_key=" + secret,
        "{\"password\":\"" + secret + "\"}",
        "authorization",
        "Bearer " + secret,
        "content-type",
        "application/json");

    String told = get(control + operation);

    assertTrue(told.contains("/v1/keys") || operation.equals("/verdict"), told);
    assertFalse(told.contains(secret), told);
  }

  @Test
  void manyCallsStaySmooth() throws Exception {
    for (int number = 0; number < 3_000; number++) {
      callTides();
    }
    look();
    browser.awaitText("#count", "3,000 calls");
    assertTrue(browser.all(".rows .row").size() < 60);

    browser.run("document.getElementById('calls').scrollTop = 1e9");

    browser.await("the first call", () -> browser.all("#call-1").size() == 1);
    assertTrue(browser.all(".rows .row").size() < 60);
  }

  @Test
  void nothingIsLoadedFromElsewhere() throws Exception {
    callTides();
    look();
    browser.click(".rows .row");
    browser.awaitText("#call h2", "/v1/tides");

    @SuppressWarnings("unchecked")
    List<String> loaded =
        (List<String>)
            browser.run("return performance.getEntriesByType('resource').map(each => each.name)");
    assertFalse(loaded.isEmpty());
    loaded.forEach(each -> assertTrue(each.startsWith(control + "/"), each));
    String policy =
        client
            .send(
                HttpRequest.newBuilder(URI.create(control + "/")).build(),
                HttpResponse.BodyHandlers.ofString())
            .headers()
            .firstValue("content-security-policy")
            .orElseThrow();
    assertTrue(policy.startsWith("default-src 'none'; script-src 'self';"), policy);
    assertFalse(policy.contains("unsafe"), policy);
  }

  @Test
  void itIsAccessibleInEachViewLightAndDark() throws Exception {
    callTides();
    call("GET", "/v1/pilots", "");
    net.describedBy("https://pilots.example", description().toString());
    for (String scheme : List.of("light", "dark")) {
      browser
          .driver()
          .executeCdpCommand(
              "Emulation.setEmulatedMedia",
              Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", scheme))));
      for (String view : List.of("#/calls", "#/calls?call=2", "#/stubs", "#/sources")) {
        browser.open(control + "/" + view);
        browser.await(view, () -> browser.all(ROWS.getOrDefault(view, ".rows .row")).size() == 2);
        if (view.contains("call=")) {
          browser.find("#call .explanation");
        }
        List<Rule> violations = new AxeBuilder().analyze(browser.driver()).getViolations();
        assertEquals(List.of(), violations.stream().map(this::described).toList(), scheme + view);
      }
    }
  }

  private Path description() throws IOException {
    return Files.writeString(
        folder.resolve("pilots.openapi.yaml"),
        """
        openapi: 3.0.3
        info: { title: Pilots, version: "1" }
        paths:
          /v1/pilots:
            get: { responses: { "200": { description: pilots } } }
            post: { responses: { "201": { description: added } } }
        """);
  }

  @Test
  void itFitsNarrowScreens() throws Exception {
    callTides();
    browser
        .driver()
        .executeCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            Map.of("width", 360, "height", 740, "deviceScaleFactor", 1, "mobile", false));
    try {
      look();
      awaitRows(1);
      browser.click(".rows .row .method");
      browser.awaitText("#call h2", "/v1/tides");

      assertEquals(true, browser.run("return document.documentElement.scrollWidth <= 360"));
      browser.click("nav a[data-view=stubs]");
      browser.awaitText("#stubs tbody", "tides of today");
      assertEquals(true, browser.run("return document.documentElement.scrollWidth <= 360"));
    } finally {
      browser.driver().executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
    }
  }

  @Test
  void copiesGoOnElsewhere() throws Exception {
    call(
        "POST", "/v1/bookings", "{\"vessel\":\"Kittiwake's\"}", "content-type", "application/json");
    String at = control + "/calls/1?as=";

    assertTrue(
        get(at + "curl").contains("--data-raw '{\"vessel\":\"Kittiwake'\\''s\"}'"),
        get(at + "curl"));
    assertTrue(get(at + "java").contains(".where(sameJson("), get(at + "java"));
    try (Cachette other = Cachette.open(settings())) {
      assertNotNull(other.declare(get(at + "stub")));
    }
    assertTrue(get(at + "yam").contains("as can be curl, stub, java or json"), get(at + "yam"));
  }

  private String described(Rule rule) {
    return String.format(
        Locale.ROOT,
        "%s: %s at %s",
        rule.getId(),
        rule.getHelp(),
        rule.getNodes().stream()
            .map(node -> node.getTarget() + " " + node.getFailureSummary())
            .toList());
  }

  private String get(String url) throws Exception {
    return client
        .send(HttpRequest.newBuilder(URI.create(url)).build(), HttpResponse.BodyHandlers.ofString())
        .body();
  }
}
