// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import static dev.cachette.answer.Answers.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.identity.LoginTable;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.junit.InterceptHttp;
import dev.cachette.match.RequestPattern;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.boot.web.servlet.context.ServletWebServerApplicationContext;

/** The whole login of the desk, offline. */
@InterceptHttp
class DeskLoginTest {

  private static IdentityProvider id;
  private static ServletWebServerApplicationContext desk;

  // snippet declare
  @BeforeAll
  static void start(Cachette net) {
    id = IdentityProvider.open(net, "https://id.example/realms/harbour");
    id.user("mara").claim("name", "Mara Quill").claim("email", "mara@marrow-bay.example");
    id.user("olin").claim("name", "Olin Reeve").claim("email", "olin@marrow-bay.example");
    id.client("harbour-desk").secret("secret-of-the-desk").audience("https://berths.example");
    net.stub("GET https://berths.example/v1/bookings")
        .bearer(id.token().withAudience("https://berths.example"))
        .answer(json("[\"B-12\"]"));
    // end
    desk = RunningDesk.at(id);
  }

  @AfterAll
  static void stop() {
    desk.close();
  }

  /** A browser without a window: it follows redirects, and keeps cookies. */
  private static HttpClient browser() {
    return HttpClient.newBuilder()
        .followRedirects(HttpClient.Redirect.ALWAYS)
        .cookieHandler(new CookieManager())
        .build();
  }

  private static HttpResponse<String> get(HttpClient by, String path, String... headers)
      throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(
            URI.create("http://localhost:" + desk.getWebServer().getPort() + path));
    if (headers.length > 0) {
      request.headers(headers);
    }
    return by.send(request.build(), BodyHandlers.ofString());
  }

  // snippet login
  @Test
  void userSignsIn(Cachette net) throws Exception {
    HttpResponse<String> response = get(browser(), "/desk");

    assertEquals(200, response.statusCode(), response.body());
    assertTrue(response.body().contains("\"name\":\"Mara Quill\""), response.body());
    assertTrue(response.body().contains("B-12"), response.body());
    net.calls("POST https://id.example/realms/harbour/token").assertCount(1);
  }

  // end

  @Test
  void anotherUserSignsIn() throws Exception {
    id.signIn("olin");
    assertTrue(get(browser(), "/desk").body().contains("Olin Reeve"));
  }

  @Test
  void userDenies() throws Exception {
    id.next(IdentityFault.ACCESS_DENIED);
    HttpResponse<String> response = get(browser(), "/desk");
    assertTrue(response.uri().toString().endsWith("/login?error"), response.uri().toString());
  }

  /** Spring Security finds each of them, and signs nobody in. */
  @ParameterizedTest
  @EnumSource(
      value = IdentityFault.class,
      names = {
        "UNKNOWN_KEY",
        "WRONG_SIGNATURE",
        "WRONG_ISSUER",
        "WRONG_AUDIENCE",
        "WRONG_NONCE",
        "EXPIRED",
        "UNSIGNED",
        "INVALID_GRANT"
      })
  // snippet faults
  void wrongTokensSignNobodyIn(IdentityFault fault) throws Exception {
    id.next(fault);
    HttpResponse<String> response = get(browser(), "/desk");
    assertTrue(response.uri().toString().endsWith("/login?error"), response.uri().toString());
  }

  // end

  @Test
  void wrongTokensAreInTheTable() throws Exception {
    LoginTable.assertRow(
        "Spring Security 6.5", id, () -> get(browser(), "/desk").body().contains("Mara Quill"));
  }

  @Test
  void keysMayChange() throws Exception {
    get(browser(), "/desk");
    id.rotateKeys();
    assertEquals(200, get(browser(), "/desk").statusCode());
  }

  @Test
  void tokensAreRefreshedBeforeTheyExpire(Cachette net) throws Exception {
    id.accessTokensLast(Duration.ofSeconds(30));
    assertEquals(200, get(browser(), "/desk").statusCode());
    net.calls(
            RequestPattern.of("POST https://id.example/realms/harbour/token")
                .form("grant_type", "refresh_token"))
        .assertCount(1);
  }

  @Test
  void deskTriesATokenThatTheBerthsRefuse(Cachette net) throws Exception {
    HttpClient browser = browser();
    get(browser, "/desk");
    id.expireTokens();
    assertEquals(500, get(browser, "/desk").statusCode());
    String why = net.calls("GET https://berths.example/v1/bookings").last().failure().orElse("");
    assertTrue(why.contains("it has expired"), why);
  }

  @Test
  void machinesComeWithATokenOfTheTest() throws Exception {
    HttpClient machine = HttpClient.newHttpClient();
    assertEquals(401, get(machine, "/v1/moorings").statusCode());
    assertEquals(403, moorings(machine, id.accessToken("mara")).statusCode());
    // snippet ready
    HttpResponse<String> response = moorings(machine, id.accessToken("mara", "moorings:read"));
    // end
    assertTrue(response.body().contains("\"for\":\"mara\""), response.body());
  }

  private static HttpResponse<String> moorings(HttpClient machine, String token) throws Exception {
    return get(machine, "/v1/moorings", "authorization", "Bearer " + token);
  }
}
