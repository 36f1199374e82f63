// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** The live page of a test run: one for all sessions of this JVM. */
@Timeout(120)
@Tag("browser")
class TestRunPageTest {

  private static final int PORT = freePort();

  private final HttpClient client = HttpClient.newHttpClient();

  private static int freePort() {
    try (ServerSocket socket = new ServerSocket(0)) {
      return socket.getLocalPort();
    } catch (IOException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  private static Cachette session() {
    return Cachette.open(
        Settings.defaults()
            .livePage(PORT)
            .unexpectedCalls(UnexpectedCalls.WARN)
            .unusedStubs(UnusedStubs.IGNORE));
  }

  private HttpResponse<String> get(String url) throws Exception {
    return send("GET", url);
  }

  private HttpResponse<String> send(String method, String url) throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create(url))
            .method(method, HttpRequest.BodyPublishers.noBody())
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private static String page() {
    return "http://127.0.0.1:" + PORT;
  }

  @Test
  void theCallsOfAllSessionsAndTestsAreOnOnePage() throws Exception {
    assumeTrue(Browser.isHere(), "Chromium and its driver are not installed");
    for (String session : new String[] {"first", "second"}) {
      try (Cachette net = session()) {
        net.stub("GET https://tides.example/" + session).answer(text(session));
        try (Cachette.Scope test = net.scope("dev.example.TidesTest", session)) {
          assertEquals(session, get("https://tides.example/" + session).body());
        }
        assertEquals(501, get("https://tides.example/none").statusCode());
      }
    }

    try (Browser browser = new Browser();
        Cachette net = session()) {
      net.stub("GET https://tides.example/third").named("of the third").answer(text("third"));
      browser.open(page() + "/#/calls?filter=host:tides.example");
      browser.awaitText("#count", "4 calls selected");
      browser.awaitText(".rows", "TidesTest.second");
      assertTrue(browser.text(".rows").contains("TidesTest.first"));
      assertTrue(browser.all(".rows .next-test").size() >= 2);

      get("https://tides.example/third");
      browser.awaitText("#count", "5 calls selected");
      browser.click(".rows .row");
      browser.awaitText("#call", "of the third");
      browser.click("nav a[data-view=stubs]");
      browser.awaitText("#stubs tbody", "of the third");
      assertFalse(browser.find(".editor").isDisplayed());
    }
  }

  @Test
  void itOnlyShows() throws Exception {
    try (Cachette net = session()) {
      net.stub("GET https://tides.example/shown").answer(text("shown"));

      HttpResponse<String> added = send("POST", page() + "/stubs");
      assertEquals(409, added.statusCode());
      assertTrue(added.body().contains("whose stubs belong to its tests"), added.body());
      assertEquals(409, send("POST", page() + "/reset").statusCode());
      assertEquals(409, send("POST", page() + "/sessions").statusCode());
      assertEquals("shown", get("https://tides.example/shown").body());
    }
    HttpResponse<String> none = get(page() + "/stubs/all");
    assertEquals(409, none.statusCode());
    assertTrue(none.body().contains("No session is open at the moment."), none.body());
  }
}
