// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cases.HarbourDesk.Flaw;
import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayResult;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Mutations of an application are found by the right case, and nothing else is. */
class MutationTest {

  private static final String ARRIVAL = "get-v1-arrivals-kittiwake";
  private static final String BOOKING = "post-v1-berths";
  private static final String LOGIN = "get-v1-login";

  @TempDir static Path folder;

  private static CapturedHarbour harbour;

  @BeforeAll
  static void capture() throws Exception {
    harbour = new CapturedHarbour(folder);
    List<CapturedCaseInfo> cases =
        harbour.capture(
            it -> it,
            url -> {
              harbour.send(url + "/v1/arrivals/kittiwake", "");
              harbour.send(url + "/v1/berths", "{\"vessel\":\"Kittiwake\"}");
              harbour.send(url + "/v1/login", "");
            });
    assertEquals(
        List.of(ARRIVAL, BOOKING, LOGIN), cases.stream().map(CapturedCaseInfo::name).toList());
    harbour.services().calls().clear();
  }

  @AfterAll
  static void close() {
    harbour.close();
  }

  @RepeatedTest(20)
  void nothingDiffersWithoutAMutation() {
    harbour.desk().has();

    ReplayResult result = harbour.replay().replay();

    assertTrue(result.isSame(), () -> explanations(result));
    assertEquals(List.of(), harbour.services().calls(), "the services were called");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          MEMBER_CHANGED            | arrival | body $.vessel / expected "kittiwake" / actual "unknown"
          MEMBER_GONE               | arrival | body $.pilots / expected 2 / actual missing
          MEMBER_NEW                | arrival | body $.tugs / expected no such member / actual 1
          MEMBER_OF_OTHER_TYPE      | arrival | body $.open / expected true / actual "true"
          IDENTIFIER_IS_NUMBER      | arrival | body $.id / actual 17 / cause the value varies, but is a UUID
          TIME_GONE                 | arrival | body $.at / actual missing
          LIST_REVERSED             | arrival | body $.high[0] / cause the same elements in another order
          STATUS_CHANGED            | arrival | status / expected 200 / actual 202
          HEADER_CHANGED            | arrival | header cache-control / expected "no-store" / actual "max-age=60"
          HEADER_GONE               | arrival | header cache-control / expected "no-store" / actual none
          HEADER_NEW                | arrival | header x-debug / expected none / actual "true"
          CONTENT_TYPE_CHANGED      | arrival | header content-type / expected "application/json" / actual "text/json"
          CALL_DROPPED              | arrival | An outgoing call is missing: POST {customs}/v1/declarations
          CALL_EXTRA                | arrival | An outgoing call is new: GET {tides}/v1/weather
          CALL_TWICE                | arrival | An outgoing call is new: GET {tides}/v1/tides?day=2031-04-02 / cause captured once, made once more
          CALL_TO_OTHER_PATH        | arrival | An outgoing call is missing: GET {tides}/v1/tides?day=2031-04-02 / An outgoing call is new: GET {tides}/v2/tides?day=2031-04-02
          CALL_QUERY_CHANGED        | arrival | An outgoing call differs: GET {tides}/v1/tides / query day / expected "2031-04-02" / actual "2031-04-03"
          CALL_XML_CHANGED          | arrival | An outgoing call differs: POST {customs}/v1/declarations / body /declaration/vessel / expected "kittiwake" / actual "KITTIWAKE"
          CALL_OF_OTHER_METHOD      | booking | An outgoing call is missing: POST {berths}/v1/bookings / An outgoing call is new: PUT {berths}/v1/bookings
          CALL_HEADER_CHANGED       | booking | An outgoing call differs: POST {berths}/v1/bookings / header x-desk / expected "north" / actual "south"
          CALL_MEMBER_CHANGED       | booking | body $.draught / expected 4.2 / actual 4.3
          CALL_MEMBER_OF_OTHER_TYPE | booking | body $.draught / expected 4.2 / actual "4.2"
          LOCATION_CHANGED          | booking | header location / /v1/berths/ / /v1/berth/
          COOKIE_CHANGED            | login   | cookie desk / expected httponly; path=/ / actual path=/
          BROKEN                    | all     | status / actual 500 / likely: its body is "the desk is on fire"
          """)
  void isFound(Flaw flaw, String where, String texts) {
    harbour.desk().has(flaw);

    ReplayResult result = harbour.replay().replay();

    Set<String> expected =
        switch (where) {
          case "arrival" -> Set.of(ARRIVAL);
          case "booking" -> Set.of(BOOKING);
          case "login" -> Set.of(LOGIN);
          default -> Set.of(ARRIVAL, BOOKING, LOGIN);
        };
    assertEquals(
        expected,
        result.different().stream().map(CaseResult::name).collect(Collectors.toSet()),
        () -> explanations(result));
    for (CaseResult each : result.different()) {
      requireTexts(each.explanation(), texts);
    }
  }

  private static void requireTexts(String explanation, String texts) {
    String plain = explanation.replaceAll("\\s+", " ");
    for (String text : texts.split(" / ")) {
      String wanted =
          text.strip()
              .replace("{tides}", harbour.services().tidesUrl())
              .replace("{berths}", harbour.services().berthsUrl())
              .replace("{customs}", harbour.services().customsUrl());
      assertTrue(plain.contains(wanted), () -> "\"" + wanted + "\" is not in:\n" + explanation);
    }
  }

  @Test
  void eachMutationHasACase() throws Exception {
    List<String> tested =
        Arrays.stream(
                MutationTest.class
                    .getDeclaredMethod("isFound", Flaw.class, String.class, String.class)
                    .getAnnotation(CsvSource.class)
                    .textBlock()
                    .split("\n"))
            .map(line -> line.split("\\|")[0].strip())
            .sorted()
            .toList();
    assertEquals(EnumSet.allOf(Flaw.class).stream().map(Flaw::name).sorted().toList(), tested);
  }

  private static String explanations(ReplayResult result) {
    return result.different().stream()
        .map(CaseResult::explanation)
        .collect(Collectors.joining("\n"));
  }
}
