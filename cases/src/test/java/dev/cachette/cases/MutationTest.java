// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cases.HarbourDesk.Flaw;
import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayResult;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
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
import org.junit.jupiter.params.provider.CsvFileSource;

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
  @CsvFileSource(resources = "mutations.txt", delimiter = '|', quoteCharacter = '\'')
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
    List<String> tested;
    try (InputStream in = MutationTest.class.getResourceAsStream("mutations.txt")) {
      tested =
          new String(in.readAllBytes(), StandardCharsets.UTF_8)
              .lines()
              .filter(line -> !line.startsWith("#"))
              .map(line -> line.split("\\|")[0].strip())
              .sorted()
              .toList();
    }
    assertEquals(EnumSet.allOf(Flaw.class).stream().map(Flaw::name).sorted().toList(), tested);
  }

  private static String explanations(ReplayResult result) {
    return result.different().stream()
        .map(CaseResult::explanation)
        .collect(Collectors.joining("\n"));
  }
}
