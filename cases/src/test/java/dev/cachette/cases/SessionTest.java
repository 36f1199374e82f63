// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayResult;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Cases of several steps, which need what the application has made anew in an earlier one. */
class SessionTest {

  @TempDir Path folder;

  private CapturedHarbour harbour;

  @BeforeEach
  void start() throws IOException {
    harbour = new CapturedHarbour(folder);
  }

  @AfterEach
  void stop() {
    harbour.close();
  }

  /** The second call needs the cookie, and a path from the body, of the first. */
  private void signIn(String url) throws IOException, InterruptedException {
    HttpResponse<String> login = harbour.send(url + "/v1/login", "");
    String cookie = login.headers().firstValue("set-cookie").orElseThrow().split(";")[0];
    String next = login.body().replaceAll(".*\"(/v1/me/[^\"]*)\".*", "$1");
    assertEquals(200, harbour.send(url + next, "", "cookie", cookie).statusCode());
  }

  @Test
  void namedSessionIsOneCase() throws Exception {
    List<CapturedCaseInfo> cases =
        harbour.capture(
            it -> it.session("Mara signs in"),
            url -> {
              signIn(url);
              harbour.send(url + "/v1/arrivals/kittiwake", "");
            });

    assertEquals(List.of("Mara-signs-in"), cases.stream().map(CapturedCaseInfo::name).toList());
    assertEquals(3, cases.get(0).incoming().size());
    requireSame();
  }

  @Test
  void callsWithTheSameCookieAreOneCase() throws Exception {
    List<CapturedCaseInfo> cases =
        harbour.capture(
            it -> it.sessionCookie("desk"),
            url -> {
              signIn(url);
              harbour.send(url + "/v1/arrivals/kittiwake", "");
              signIn(url);
            });

    assertEquals(List.of(2, 1, 2), cases.stream().map(it -> it.incoming().size()).toList());
    requireSame();
  }

  @Test
  void eachStepIsAnsweredByItsOwnExchanges() throws Exception {
    harbour.capture(
        it -> it.session("arrivals"),
        url -> {
          for (String vessel : List.of("kittiwake", "tern", "kittiwake")) {
            harbour.send(url + "/v1/arrivals/" + vessel, "");
            harbour.send(url + "/v1/berths", "{\"vessel\":\"" + vessel + "\"}");
          }
        });
    requireSame();
    harbour.desk().has(HarbourDesk.Flaw.CALL_MEMBER_CHANGED);

    assertEquals(3, harbour.replay().replay().different().get(0).findings().size());
  }

  @Test
  void differenceInALaterStepNamesItsCall() throws Exception {
    harbour.capture(
        it -> it.session("arrival"),
        url -> {
          harbour.send(url + "/v1/login", "");
          harbour.send(url + "/v1/arrivals/kittiwake", "");
        });
    harbour.desk().has(HarbourDesk.Flaw.MEMBER_CHANGED);

    ReplayResult result = harbour.replay().replay();

    String text = result.different().get(0).explanation();
    assertTrue(
        text.contains(
            "The response differs: GET " + harbour.desk().url() + "/v1/arrivals/kittiwake"),
        text);
  }

  @Test
  void cookiesAreNotInTheFile() throws Exception {
    String[] cookie = new String[1];
    harbour.capture(
        it -> it.session("sign in"),
        url -> {
          HttpResponse<String> login = harbour.send(url + "/v1/login", "");
          cookie[0] = login.headers().firstValue("set-cookie").orElseThrow();
          harbour.send(url + "/v1/me/x", "", "cookie", cookie[0].split(";")[0]);
        });

    String value = cookie[0].split(";")[0].substring("desk=".length());
    assertTrue(!Files.readString(folder.resolve("sign-in.har")).contains(value), value);
  }

  private void requireSame() {
    for (int time = 0; time < 3; time++) {
      ReplayResult result = harbour.replay().replay();
      assertTrue(
          result.isSame(),
          () ->
              result.different().stream()
                  .map(CaseResult::explanation)
                  .collect(Collectors.joining()));
    }
  }
}
