// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.deque.html.axecore.results.Rule;
import com.deque.html.axecore.selenium.AxeBuilder;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.Cachette;
import dev.cachette.FreePorts;
import dev.cachette.Settings;
import dev.cachette.control.Browser;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** People sign in on the page, in a real browser. */
@Tag("browser")
class LoginPageTest {

  private final int port = FreePorts.pair();
  private final String issuer = "http://localhost:" + port;
  private final TestClient client = new TestClient();
  private final Queue<String> received = new ConcurrentLinkedQueue<>();
  private HttpServer desk;
  private Cachette net;

  @BeforeEach
  void start() throws Exception {
    assumeTrue(Browser.isHere());
    desk = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    desk.createContext(
        "/signed-in",
        exchange -> {
          String form = new String(exchange.getRequestBody().readAllBytes());
          received.add(exchange.getRequestMethod() + " " + exchange.getRequestURI() + " " + form);
          byte[] page = "<!DOCTYPE html><title>desk</title><p id=done>Welcome".getBytes();
          exchange.getResponseHeaders().add("content-type", "text/html");
          exchange.sendResponseHeaders(200, page.length);
          exchange.getResponseBody().write(page);
          exchange.close();
        });
    desk.start();
    net =
        Cachette.open(
            Settings.defaults()
                .withoutInterception()
                .listenAddress(new InetSocketAddress(InetAddress.getLoopbackAddress(), port))
                .servingAs(issuer));
    IdentityProvider id = IdentityProvider.open(net, issuer).withLoginPage();
    id.user("mara <script>alert(1)</script>");
    id.user("olin");
    net.baseUrl();
  }

  @AfterEach
  void stop() {
    if (net != null) {
      desk.stop(0);
      net.close();
    }
  }

  private String url(String... changes) {
    Map<String, String> parameters =
        client.authorization("redirect_uri", redirect(), "response_mode", "query");
    return issuer + "/authorize?" + TestClient.form(TestClient.changed(parameters, changes));
  }

  private String redirect() {
    return "http://localhost:" + desk.getAddress().getPort() + "/signed-in";
  }

  @Test
  void peopleChooseWhoTheyAre() {
    try (Browser browser = new Browser()) {
      browser.open(url());
      List<Rule> problems = new AxeBuilder().analyze(browser.driver()).getViolations();
      assertEquals(List.of(), problems.stream().map(Rule::getId).toList());
      browser.find("button[value=olin]").click();
      browser.await("the desk", () -> browser.find("#done"));
      assertTrue(received.remove().matches("GET /signed-in\\?code=\\w+&state=st-1&iss=.* "));

      // The browser has the session of the provider now.
      browser.open(url("prompt", "none"));
      browser.await("the desk", () -> browser.find("#done"));
      assertTrue(received.remove().startsWith("GET /signed-in?code="));
    }
  }

  @Test
  void formsSendThemselves() {
    try (Browser browser = new Browser()) {
      browser.open(url("response_mode", "form_post"));
      browser.find("button[value^=mara]").click();
      browser.await("the desk", () -> browser.find("#done"));
      assertTrue(received.remove().matches("POST /signed-in code=\\w+&state=st-1&iss=.*"));
    }
  }
}
