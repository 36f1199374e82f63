// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.FreePorts;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import org.junit.jupiter.api.Test;

/** An identity provider for programs in any language, and for browsers. */
class ServeIdentityTest {

  private static final String REQUEST =
      "response_type=code&client_id=berth-board&scope=openid%20email&state=s1"
          + "&redirect_uri=http://localhost:9999/back";

  private final HttpClient http = HttpClient.newHttpClient();

  private HttpResponse<String> get(String url) throws Exception {
    return http.send(HttpRequest.newBuilder(URI.create(url)).build(), BodyHandlers.ofString());
  }

  private HttpResponse<String> post(String url, String form) throws Exception {
    return http.send(
        HttpRequest.newBuilder(URI.create(url))
            .header("content-type", "application/x-www-form-urlencoded")
            .POST(BodyPublishers.ofString(form))
            .build(),
        BodyHandlers.ofString());
  }

  private static Run.Going serve(int port, String... more) throws Exception {
    String[] arguments = new String[more.length + 5];
    System.arraycopy(
        new String[] {"serve", "--identity", "http://localhost:" + port, "--port", "" + port},
        0,
        arguments,
        0,
        5);
    System.arraycopy(more, 0, arguments, 5, more.length);
    return new Run.Going(arguments);
  }

  private static String code(HttpResponse<String> redirect) {
    String location = redirect.headers().firstValue("location").orElse("");
    assertTrue(location.startsWith("http://localhost:9999/back?code="), location);
    return location.replaceAll(".*[?&]code=([^&]+).*", "$1");
  }

  private JsonNode idToken(String issuer, String code) throws Exception {
    String form =
        "grant_type=authorization_code&client_id=berth-board"
            + "&redirect_uri=http://localhost:9999/back&code="
            + code;
    JsonNode tokens = new ObjectMapper().readTree(post(issuer + "/token", form).body());
    byte[] claims = Base64.getUrlDecoder().decode(tokens.path("id_token").asText().split("\\.")[1]);
    return new ObjectMapper().readTree(new String(claims, StandardCharsets.UTF_8));
  }

  @Test
  void firstUserIsSignedInAtOnce() throws Exception {
    int port = FreePorts.pair();
    String issuer = "http://localhost:" + port;
    try (Run.Going serving = serve(port, "--user", "mara", "--user", "olin")) {
      serving.message("serving at");
      JsonNode metadata =
          new ObjectMapper().readTree(get(issuer + "/.well-known/openid-configuration").body());
      assertEquals(issuer, metadata.path("issuer").asText());
      String code = code(get(metadata.path("authorization_endpoint").asText() + "?" + REQUEST));
      JsonNode claims = idToken(issuer, code);
      assertEquals("mara", claims.path("sub").asText());
      assertEquals("mara@users.example", claims.path("email").asText());
      assertEquals(0, serving.stop());
      assertEquals("3 calls, 0 unexpected", serving.message("stopped:"));
    }
  }

  @Test
  void peopleChooseOnThePage() throws Exception {
    int port = FreePorts.pair();
    String issuer = "http://localhost:" + port;
    try (Run.Going serving = serve(port, "--user", "mara", "--user", "olin", "--login-page")) {
      serving.message("serving at");
      String page = get(issuer + "/authorize?" + REQUEST).body();
      assertTrue(page.contains("<button name=\"signed_in_as\" value=\"olin\">"), page);
      HttpResponse<String> chosen = post(issuer + "/authorize", REQUEST + "&signed_in_as=olin");
      assertEquals("olin", idToken(issuer, code(chosen)).path("sub").asText());

      // The provider remembers who has signed in, unless the client asks again.
      String cookie = chosen.headers().firstValue("set-cookie").orElseThrow().split(";")[0];
      assertEquals(302, authorize(issuer, cookie, "&prompt=none").statusCode());
      assertEquals(200, authorize(issuer, cookie, "&prompt=login").statusCode());
      assertTrue(
          authorize(issuer, "other=1", "&prompt=none")
              .headers()
              .firstValue("location")
              .orElse("")
              .contains("error=login_required"));
    }
  }

  private HttpResponse<String> authorize(String issuer, String cookie, String more)
      throws Exception {
    return http.send(
        HttpRequest.newBuilder(URI.create(issuer + "/authorize?" + REQUEST + more))
            .header("cookie", cookie)
            .build(),
        BodyHandlers.ofString());
  }
}
