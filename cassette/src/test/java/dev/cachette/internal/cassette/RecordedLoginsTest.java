// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Percent;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Login parameters and tokens in cassettes: what is redacted, what matches, what is filled in. */
class RecordedLoginsTest {

  private static final String AUTHORIZE =
      "https://id.example/authorize?response_type=code&client_id=desk&scope=openid&state=%s"
          + "&nonce=%s&code_challenge=%s";

  private static Request get(String url) {
    return new Request("GET", Uri.parse(url), Headers.none(), Body.empty());
  }

  private static Request form(String url, String body) {
    return new Request(
        "POST",
        Uri.parse(url),
        Headers.none().and("content-type", "application/x-www-form-urlencoded"),
        Body.of(body));
  }

  private static Exchange exchange(Request request, Response response) {
    return Exchange.answered(Instant.EPOCH, Duration.ZERO, "HTTP/1.1", request, response);
  }

  private static Exchange redirect(Request request, String location) {
    return exchange(
        request, new Response(302, Headers.none().and("Location", location), Body.empty()));
  }

  private static Exchange json(Request request, String body) {
    return exchange(
        request,
        new Response(200, Headers.none().and("content-type", "application/json"), Body.of(body)));
  }

  private static String token(String claims) {
    Base64.Encoder encoder = Base64.getUrlEncoder().withoutPadding();
    return encoder.encodeToString("{\"alg\":\"RS256\"}".getBytes(StandardCharsets.UTF_8))
        + "."
        + encoder.encodeToString(claims.getBytes(StandardCharsets.UTF_8))
        + ".c2lnbmF0dXJlIG9mIHRoZSByZWFsIHByb3ZpZGVy";
  }

  /** Records exchanges as a file, and returns it as text. */
  private static String recorded(Redaction rules, Exchange... exchanges) throws IOException {
    RecordedExchanges nothing = SecretsTest.recordings(new byte[0]);
    LoadedCassette cassette =
        new LoadedCassette(
            "login",
            CassetteSettings.defaults().redaction(it -> rules),
            RecordingMode.REWRITE,
            nothing);
    List.of(exchanges).forEach(cassette::keep);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    new Merge(nothing, cassette.finished(), true, Varying.none())
        .writeTo(out, nothing, Instant.EPOCH, "1");
    return out.toString(StandardCharsets.UTF_8);
  }

  private static LoadedCassette replaying(String file) throws IOException {
    return new LoadedCassette(
        "login",
        CassetteSettings.defaults(),
        RecordingMode.REPLAY,
        SecretsTest.recordings(file.getBytes(StandardCharsets.UTF_8)));
  }

  private static Optional<Response> answer(LoadedCassette cassette, Request request) {
    return cassette.replay(request).flatMap(it -> it.exchange().response());
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "application/x-www-form-urlencoded",
        "Application/X-WWW-Form-URLEncoded",
        "application/x-www-form-urlencoded; charset=UTF-8"
      })
  void statesInPostedFormsAreRedacted(String contentType) throws IOException {
    Request request =
        new Request(
            "POST",
            Uri.parse("https://desk.example/signed-in"),
            Headers.none().and("content-type", contentType),
            Body.of("code=Kx7q9Zt4Vb2n&state=Vb2nKx7q9Zt4"));
    String file = recorded(Redaction.byDefault(), json(request, "{}"));
    assertFalse(file.contains("Vb2nKx7q9Zt4"), file);
    assertTrue(file.contains("{{state}}"), file);
  }

  @ParameterizedTest
  @CsvSource({
    "https://a.example/x?client_id=d&response_type=code&state=abc,        true",
    "https://a.example/x?state=abc&response_type=code&client_id=d,        true",
    "https://a.example/cb?code=12345&state=abc,                           true",
    "https://a.example/cb?error=access_denied&state=abc,                  true",
    "https://a.example/cb?x=1#id_token=i&state=abc,                       true",
    "https://a.example/out?post_logout_redirect_uri=u&state=abc,          true",
    "https://a.example/out?id_token_hint=i&state=abc,                     true",
    "https://a.example/berths?state=abc,                                  false",
    "https://a.example/berths?state=abc&client_id=d,                      false",
    "https://a.example/berths?client_id=d&response_type=code&States=abc,  false",
  })
  void statesAreKnownByTheOtherParameters(String url, boolean isOfLogin) throws IOException {
    Exchange exchange = redirect(get("https://desk.example/"), url);
    String redacted =
        new Redactor(Redaction.byDefault())
            .redact(1, exchange)
            .response()
            .orElseThrow()
            .headers()
            .first("location")
            .orElseThrow();
    assertEquals(isOfLogin, redacted.contains("{{state:url}}"), redacted);
    assertEquals(isOfLogin, !redacted.contains("abc"), redacted);
  }

  /** Any state comes back as it was sent, whatever was recorded. */
  @Test
  void anyStateComesBack() throws IOException {
    Random random = new Random(7);
    List<String> states = new ArrayList<>(List.of("x", "=", "a b", "{{state}}", "%41", "&a=b"));
    for (int at = 0; at < 60; at++) {
      StringBuilder state = new StringBuilder();
      for (int length = 1 + random.nextInt(40); length > 0; length--) {
        state.append((char) (' ' + random.nextInt(at % 2 == 0 ? 95 : 600)));
      }
      states.add(state.toString());
    }
    for (int at = 0; at < states.size(); at++) {
      String before = Percent.encodeForm(states.get((at * 7 + 3) % states.size()));
      String now = states.get(at);
      LoadedCassette cassette =
          replaying(
              recorded(
                  Redaction.byDefault(),
                  redirect(
                      get(String.format(AUTHORIZE, before, "n1", "c1")),
                      "https://desk.example/cb?code=c0de&state=" + before)));
      Optional<Response> response =
          answer(cassette, get(String.format(AUTHORIZE, Percent.encodeForm(now), "nonce-2", "c2")));
      String location = response.orElseThrow().headers().first("location").orElseThrow();
      Uri back = Uri.parse(location);
      if (!now.equals("{{state}}")) {
        assertEquals(Optional.of(now), back.query().first("state"), location);
      }
      assertEquals(Optional.of("recorded-code"), back.query().first("code"), location);
    }
  }

  @Test
  void theFormOfAPushedRequestCounts() throws IOException {
    String body = "response_type=code&client_id=desk&state=%s&nonce=%s&x=1";
    Request pushed = form("https://id.example/par", String.format(body, "first-state", "n-1"));
    String file =
        recorded(
            Redaction.byDefault(),
            json(pushed, "{\"request_uri\":\"urn:x\"}"),
            redirect(
                get("https://id.example/authorize?client_id=desk&request_uri=urn:x"),
                "https://desk.example/cb?code=c&state=first-state"));
    assertFalse(file.contains("first-state"), file);
    LoadedCassette cassette = replaying(file);
    Request other = form("https://id.example/par", String.format(body, "second", "n-2"));
    assertTrue(answer(cassette, other).isPresent());
    assertEquals(
        Optional.of("https://desk.example/cb?code=c&state=second")
            .map(it -> it.replace("code=c&", "code={{code}}&")),
        answer(cassette, get("https://id.example/authorize?client_id=desk&request_uri=urn:x"))
            .flatMap(it -> it.headers().first("location")));
    Request another = form("https://id.example/par", String.format(body, "a", "b") + "2");
    assertTrue(answer(cassette, another).isEmpty(), "x differs");
  }

  @Test
  void exceptedNamesStay() throws IOException {
    String file =
        recorded(
            Redaction.byDefault().except("state", "nonce"),
            redirect(
                get(String.format(AUTHORIZE, "a%20state", "a-nonce", "ch")),
                "https://desk.example"));
    assertTrue(file.contains("state=a%20state&nonce=a-nonce&code_challenge=%7B%7Bcode_ch"), file);
  }

  private static final String CLAIMS =
      "{\"iss\":\"https://id.example\",\"sub\":\"mara\",\"nonce\":\"nonce-of-the-first-login\","
          + "\"exp\":1,\"iat\":1,\"password\":\"s3cret-in-a-token\"}";

  @Test
  void tokensAreRedactedAsAWhole() throws IOException {
    String file =
        recorded(
            Redaction.byDefault(),
            redirect(
                get(String.format(AUTHORIZE, "s", "nonce-of-the-first-login", "ch")),
                "https://desk.example"),
            json(
                form("https://id.example/token", "grant_type=authorization_code&code=c0de12345"),
                "{\"id_token\":\"" + token(CLAIMS) + "\",\"expires_in\":300}"));
    assertFalse(file.contains("eyJ") || file.contains("c2ln"), file);
    assertFalse(file.contains("nonce-of-the-first-login"), file);
    assertFalse(file.contains("s3cret-in-a-token"), "claims are redacted as well: " + file);
    assertTrue(
        file.contains("{\\\"id_token\\\":\\\"{{id_token}}\\\",\\\"expires_in\\\":300}"), file);
    Exchange read = SecretsTest.recordings(file.getBytes(StandardCharsets.UTF_8)).get(1);
    assertEquals(
        Map.of(
            "id_token",
            "{\"iss\":\"https://id.example\",\"sub\":\"mara\",\"password\":\"{{password}}\"}"),
        read.tokens());
  }

  @Test
  void tokensAreSignedAgainWithTheNonceOfNow() throws IOException {
    Request redeem =
        form("https://id.example/token", "grant_type=authorization_code&code=c0de12345");
    LoadedCassette cassette =
        replaying(
            recorded(
                Redaction.byDefault(),
                redirect(
                    get(String.format(AUTHORIZE, "s", "nonce-of-the-first-login", "ch")),
                    "https://desk.example"),
                json(redeem, "{\"id_token\":\"" + token(CLAIMS) + "\"}")));
    List<String> signed = new ArrayList<>();
    cassette.signedBy(
        (claims, nonce) -> {
          signed.add(nonce.orElse("none") + " " + claims);
          return Optional.of("signed-again-" + signed.size());
        });
    answer(cassette, get(String.format(AUTHORIZE, "s2", "n2", "ch2")));
    assertEquals(
        Optional.of("{\"id_token\":\"signed-again-1\"}"),
        answer(cassette, redeem).map(it -> it.body().text(StandardCharsets.UTF_8)));
    assertTrue(signed.get(0).startsWith("n2 {\"iss\":\"https://id.example\""), signed::toString);
    assertEquals(Map.of("signed-again-1", "id_token"), cassette.signed());
  }

  @Test
  void requestsOfCasesAreFilled() throws IOException {
    Request request =
        new Request(
            "GET",
            Uri.parse("https://desk.example/v1"),
            Headers.none().and("authorization", "Bearer " + token(CLAIMS)),
            Body.empty());
    Redactor redactor = new Redactor(Redaction.byDefault());
    Exchange redacted = redactor.redact(1, json(request, "{}"));
    assertEquals(
        Optional.of("Bearer {{authorization}}"),
        redacted.request().headers().first("authorization"));
    assertEquals(List.of("authorization"), List.copyOf(redacted.tokens().keySet()));
    assertEquals(Map.of(), TokenClaims.received(redacted).tokens(), "it is not sent again");

    Redactor filling = new Redactor(Redaction.byDefault());
    TokenSigner signer = (claims, nonce) -> Optional.of("again");
    assertEquals(
        Optional.of("Bearer again"),
        filling
            .fill(redacted.request(), redacted.tokens(), signer)
            .headers()
            .first("authorization"));
    assertEquals(
        redacted.request(), filling.fill(redacted.request(), redacted.tokens(), TokenSigner.NONE));
    Redactor named = new Redactor(Redaction.byDefault().secret("authorization", "of-the-user"));
    assertEquals(
        Optional.of("Bearer of-the-user"),
        named.fill(redacted.request(), redacted.tokens(), signer).headers().first("authorization"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "not.a.token",
        "eyJhbGciOiJSUzI1NiJ9.bm8ganNvbiBhdCBhbGw.c2ln",
        "eyJhbGciOiJSUzI1NiJ9.eyJzdWIiOiJtYXJhIn0.c2ln",
        "eyJhbGciOiJSUzI1NiJ9.WyJhbiBhcnJheSJd.c2ln",
        "eyJhbGciOiJSUzI1NiJ9.%%%%%%%%%%.c2ln",
      })
  void otherTokensHaveNoClaims(String token) throws IOException {
    assertEquals(Optional.empty(), TokenClaims.of(token));
  }

  @Test
  void wrongClaimsInAFileAreReported() throws IOException {
    String file =
        recorded(
            Redaction.byDefault(),
            json(get("https://id.example/"), "{\"id_token\":\"" + token(CLAIMS) + "\"}"));
    String wrong = file.replace("\"iss\": \"https://id.example\"", "\"iss\": 7");
    CassetteException refused =
        assertThrows(
            CassetteException.class,
            () -> SecretsTest.recordings(wrong.getBytes(StandardCharsets.UTF_8)).get(0));
    assertTrue(
        refused.getMessage().contains("/_tokens/id_token: needs the claims of a token"),
        refused.getMessage());
  }

  /** A secret is known from its second occurrence on, in the encoding of its place. */
  @ParameterizedTest
  @CsvSource({
    "a plain one, s3cret-of-the-desk",
    "with a space, s3cret of the desk",
    "with more, p&ss=w\u00f6rd %41+7",
  })
  void theSameRequestMatchesEachTime(String unused, String secret) throws IOException {
    String encoded = Percent.encodeForm(secret);
    Request login = form("https://id.example/token", "grant_type=password&password=" + encoded);
    Request url = get("https://tides.example/v1?api_key=" + encoded + "&day=1");
    String file =
        recorded(
            Redaction.byDefault(),
            json(login, "1"),
            json(url, "2"),
            json(login, "3"),
            json(url, "4"));
    assertFalse(file.contains(encoded), file);
    LoadedCassette cassette = replaying(file);
    List<String> answers = new ArrayList<>();
    for (Request each : List.of(login, url, login, url, login)) {
      answers.add(
          answer(cassette, each).map(it -> it.body().text(StandardCharsets.UTF_8)).orElse("none"));
    }
    assertEquals(List.of("1", "2", "3", "4", "3"), answers, file);
  }
}
