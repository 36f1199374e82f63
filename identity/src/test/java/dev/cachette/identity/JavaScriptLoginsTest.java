// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.sun.net.httpserver.HttpServer;
import dev.cachette.Cachette;
import dev.cachette.FreePorts;
import dev.cachette.Settings;
import dev.cachette.control.Browser;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Libraries for JavaScript sign in at a provider that is served, in Node and in a browser. They are
 * installed by {@code npm ci --prefix identity/src/test/node}; without that, this is skipped.
 */
@Tag("browser")
class JavaScriptLoginsTest {

  private static final Path SCRIPTS = Path.of("src/test/node");
  private static final Path MODULES = SCRIPTS.resolve("node_modules");
  private static final String WELCOME = "signed in as mara";

  private final int port = FreePorts.pair();
  private final String issuer = "http://localhost:" + port;
  private Cachette net;
  private IdentityProvider id;

  @BeforeEach
  void serve() {
    assumeTrue(Files.isDirectory(MODULES), "npm ci --prefix identity/src/test/node");
    net =
        Cachette.open(
            Settings.defaults()
                .withoutInterception()
                .cors(true)
                .listenAddress(new InetSocketAddress(InetAddress.getLoopbackAddress(), port))
                .servingAs(issuer));
    id = IdentityProvider.open(net, issuer);
    id.user("mara").claim("email", "mara@marrow-bay.example");
    id.client("harbour-desk").secret("s3cret-of-the-desk");
    id.client("harbour-board");
    net.baseUrl();
  }

  @AfterEach
  void nothingWasWrong() {
    if (net != null) {
      net.close();
    }
  }

  @Test
  void node() throws Exception {
    LoginTable.assertRow("openid-client 6.9 on Node.js", id, this::signsInOnNode);
  }

  private boolean signsInOnNode() throws Exception {
    Process node =
        new ProcessBuilder("node", "sign-in.mjs", issuer, TestClient.REDIRECT)
            .directory(SCRIPTS.toFile())
            .redirectErrorStream(true)
            .start();
    String printed =
        new String(node.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
    assertTrue(node.waitFor(60, TimeUnit.SECONDS), printed);
    assertEquals(0, node.exitValue(), printed);
    return isSignedIn(printed);
  }

  private static boolean isSignedIn(String result) {
    assertTrue(result.equals(WELCOME) || result.startsWith("refused: "), result);
    return result.equals(WELCOME);
  }

  @Test
  void browser() throws Exception {
    assumeTrue(Browser.isHere());
    HttpServer board = board();
    try (Browser browser = new Browser()) {
      String url = "http://localhost:" + board.getAddress().getPort() + "/sign-in?issuer=" + issuer;
      LoginTable.assertRow(
          "oidc-client-ts 3.5 in Chromium",
          id,
          () -> {
            browser.open(url);
            return isSignedIn(
                browser.await(
                    "a result",
                    () -> {
                      String text = browser.find("#result").getText();
                      return text.isEmpty() ? null : text;
                    }));
          });
    } finally {
      board.stop(0);
    }
  }

  /** The page of the board, and its library. */
  private static HttpServer board() throws IOException {
    Map<String, Path> files =
        Map.of(
            "/oidc-client-ts.min.js",
            MODULES.resolve("oidc-client-ts/dist/browser/oidc-client-ts.min.js"));
    HttpServer board =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    board.createContext(
        "/",
        exchange -> {
          String path = exchange.getRequestURI().getPath();
          byte[] content =
              Files.readAllBytes(files.getOrDefault(path, SCRIPTS.resolve("sign-in.html")));
          exchange
              .getResponseHeaders()
              .add("content-type", path.endsWith(".js") ? "text/javascript" : "text/html");
          exchange.sendResponseHeaders(200, content.length);
          exchange.getResponseBody().write(content);
          exchange.close();
        });
    board.start();
    return board;
  }
}
