// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.FreePorts;
import dev.cachette.cases.CapturedCaseInfo.Change;
import dev.cachette.replay.ReplayResult;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Captured calls become files: their names, and what they have. */
class CaptureTest {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String BOOKING = "{\"vessel\":\"Kittiwake\"}";

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

  @Test
  void takenPortsAreNamed() throws Exception {
    int free = FreePorts.pair();
    CaptureSettings settings = CaptureSettings.of(folder, harbour.desk().url()).outgoingPort(free);
    for (int taken : List.of(free, free + 1)) {
      try (ServerSocket other = new ServerSocket(taken, 1, InetAddress.getLoopbackAddress())) {
        String message =
            assertThrows(
                    IllegalStateException.class,
                    () -> Capture.open(settings, new CaptureListener() {}))
                .getMessage();
        assertTrue(
            message.startsWith("cannot bind 127.0.0.1:" + other.getLocalPort() + ": ")
                && message.contains(". Fix: "),
            message);
      }
    }

    // Nothing of it is left.
    Capture.open(settings, new CaptureListener() {}).close();
  }

  @Test
  void fileHasTheIncomingCallFirst() throws Exception {
    harbour.capture(it -> it, url -> harbour.send(url + "/v1/arrivals/kittiwake", ""));

    JsonNode entries = JSON.readTree(text("get-v1-arrivals-kittiwake")).at("/log/entries");
    assertEquals(
        List.of(
            "incoming " + harbour.desk().url() + "/v1/arrivals/kittiwake",
            "outgoing " + harbour.services().tidesUrl() + "/v1/tides?day=2031-04-02",
            "outgoing " + harbour.services().customsUrl() + "/v1/declarations"),
        values(entries, it -> it.path("_call").asText() + " " + it.at("/request/url").asText()));
    assertEquals("[\"$.at\",\"$.id\"]", entries.at("/0/response/_varying/json").toString());
  }

  @Test
  void namesAreOfMethodPathAndQueryWithNumbers() throws Exception {
    harbour.capture(
        it -> it,
        url -> {
          harbour.send(url + "/v1/arrivals/tern?day=2031-04-02&all", "");
          harbour.send(url + "/v1/berths", BOOKING);
          harbour.send(url + "/v1/berths", "{\"vessel\":\"Tern\"}");
          harbour.send(url + "/v1/berths", BOOKING);
          harbour.send(url + "/", "");
          harbour.send(url + "/v1/arrivals/x%2F..%2Fy%20z", "");
          harbour.send(url + "/v1/login", "", "cachette-case", "sign in: Mara");
          harbour.send(url + "/v1/login", "", "cachette-case", "../../sign in: Mara");
        });

    assertEquals(
        List.of(
            "get",
            "get-v1-arrivals-tern-day-2031-04-02-all",
            "get-v1-arrivals-x-..-y-z",
            "post-v1-berths",
            "post-v1-berths-2",
            "post-v1-berths-3",
            "sign-in-Mara",
            "sign-in-Mara-2"),
        List.copyOf(files().keySet()));
    assertFalse(text("sign-in-Mara").contains("cachette-case"), "the header is passed on");
  }

  @Test
  void longNamesAreCutButDifferent() throws Exception {
    String path = "/v1/arrivals/" + "long".repeat(40);
    harbour.capture(
        it -> it,
        url -> {
          harbour.send(url + path + "1", "");
          harbour.send(url + path + "2", "");
        });

    assertEquals(2, files().size());
    assertTrue(files().keySet().stream().allMatch(it -> it.length() <= 80), files()::toString);
  }

  @Test
  void nothingChangesIfNothingHasChanged() throws Exception {
    CapturedHarbour.Caller calls =
        url -> {
          harbour.send(url + "/v1/arrivals/kittiwake", "");
          harbour.send(url + "/v1/berths", BOOKING);
          harbour.send(url + "/v1/berths", "{\"vessel\":\"Tern\"}");
          harbour.send(url + "/v1/login", "");
        };
    harbour.capture(it -> it, calls);
    Map<String, String> before = files();

    List<CapturedCaseInfo> again = harbour.capture(it -> it, calls);

    assertEquals(before, files());
    assertEquals(
        Collections.nCopies(4, Change.UNCHANGED),
        again.stream().map(CapturedCaseInfo::change).toList());
  }

  @Test
  void whatIsAddedByHandStays() throws Exception {
    CapturedHarbour.Caller calls = url -> harbour.send(url + "/v1/arrivals/kittiwake", "");
    harbour.capture(it -> it, calls);
    Path file = folder.resolve("get-v1-arrivals-kittiwake.har");
    Files.writeString(
        file,
        Files.readString(file)
            .replace("\"$.at\",", "\"$.at\",\n                \"$.open\",")
            .replace(
                "\"version\": \"1.2\",", "\"version\": \"1.2\",\n    \"comment\": \"by Mara\","));
    harbour.desk().has(HarbourDesk.Flaw.MEMBER_CHANGED);

    harbour.capture(it -> it, calls);

    String now = Files.readString(file);
    assertTrue(now.contains("by Mara") && now.contains("$.open"), now);
    assertTrue(now.contains("unknown"), now);
  }

  @Test
  void onlyWhatHasChangedIsWrittenAgain() throws Exception {
    CapturedHarbour.Caller calls =
        url -> {
          harbour.send(url + "/v1/arrivals/kittiwake", "");
          harbour.send(url + "/v1/berths", BOOKING);
        };
    harbour.capture(it -> it, calls);
    Map<String, String> before = files();
    JsonNode entriesBefore = JSON.readTree(text("post-v1-berths")).at("/log/entries");
    harbour.desk().has(HarbourDesk.Flaw.CALL_MEMBER_CHANGED);

    harbour.capture(it -> it, calls);

    assertEquals(before.get("get-v1-arrivals-kittiwake"), text("get-v1-arrivals-kittiwake"));
    JsonNode entries = JSON.readTree(text("post-v1-berths")).at("/log/entries");
    assertEquals(entriesBefore.get(0), entries.get(0), "the incoming call has not changed");
    assertTrue(entries.at("/1/request/postData/text").asText().contains("4.3"));
  }

  @Test
  void caseCanBeNamedDroppedAndMarked() throws Exception {
    CountDownLatch written = new CountDownLatch(3);
    CaptureListener listener =
        new CaptureListener() {
          @Override
          public void written(CapturedCaseInfo captured) {
            written.countDown();
          }
        };
    try (Capture capture =
        Capture.open(CaptureSettings.of(folder, harbour.desk().url()), listener)) {
      harbour.send(capture.baseUrl() + "/v1/login", "");
      harbour.send(capture.baseUrl() + "/v1/login", "");
      harbour.send(capture.baseUrl() + "/v1/login", "");
      written.await();
      capture.rename(1, "sign in");
      capture.drop(2);
      capture.markVarying(3, "$.next");
      capture.markVarying(3, "header x-trace");
    }

    assertEquals(List.of("get-v1-login-3", "sign-in"), List.copyOf(files().keySet()));
    JsonNode varying = JSON.readTree(text("get-v1-login-3")).at("/log/entries/0/response/_varying");
    assertEquals("{\"headers\":[\"x-trace\"],\"json\":[\"$.next\"]}", varying.toString());
  }

  @Test
  void droppedCaseThatWasThereBeforeIsRestored() throws Exception {
    harbour.capture(it -> it, url -> harbour.send(url + "/v1/login", ""));
    Map<String, String> before = files();
    harbour.desk().has(HarbourDesk.Flaw.COOKIE_CHANGED);
    try (Capture capture =
        Capture.open(CaptureSettings.of(folder, harbour.desk().url()), new CaptureListener() {})) {
      harbour.send(capture.baseUrl() + "/v1/login", "");
      capture.drop(1);
    }

    assertEquals(before, files());
  }

  @Test
  void redirectsLeadBackToTheCapture() throws Exception {
    harbour.capture(
        it -> it,
        url -> {
          String location =
              harbour.send(url + "/v1/berths", BOOKING).headers().firstValue("location").orElse("");
          assertTrue(location.startsWith(harbour.desk().url()), "201 is not a redirect");
        });
  }

  @Test
  void applicationThatDoesNotAnswerIsNotACase() throws Exception {
    String url = harbour.desk().url();
    harbour.desk().close();
    try (Capture capture =
        Capture.open(CaptureSettings.of(folder, url), new CaptureListener() {})) {
      assertEquals(502, harbour.send(capture.baseUrl() + "/v1/login", "").statusCode());
    }
    assertEquals(Map.of(), files());
  }

  @Test
  void serviceThatDoesNotAnswerIsReplayedAsThat() throws Exception {
    harbour.services().close();
    harbour.capture(it -> it, url -> harbour.send(url + "/v1/arrivals/kittiwake", ""));
    JsonNode entries = JSON.readTree(text("get-v1-arrivals-kittiwake")).at("/log/entries");
    assertEquals(500, entries.at("/0/response/status").asInt());
    assertEquals("connectionRefused", entries.at("/1/_fault").asText());
  }

  @Test
  void safeRequestsAreRepeatedToLearn() throws Exception {
    List<CapturedCaseInfo> cases =
        harbour.capture(
            CaptureSettings::repeatingSafe,
            url -> {
              harbour.send(url + "/v1/arrivals/kittiwake", "");
              harbour.send(url + "/v1/berths", BOOKING);
            });

    assertEquals(2, cases.size());
    assertEquals(2, cases.get(0).outgoing().size(), "those of the repetition are left out");
    long tides = harbour.services().calls().stream().filter(it -> it.contains("/v1/tides")).count();
    long bookings =
        harbour.services().calls().stream().filter(it -> it.contains("/v1/bookings")).count();
    assertEquals(List.of(2L, 1L), List.of(tides, bookings));
  }

  @Test
  void backgroundCallsHaveACaseOfTheirOwn() throws Exception {
    List<CapturedCaseInfo> cases =
        harbour.capture(
            it -> it.background("GET " + harbour.services().tidesUrl() + "/v1/tides"),
            url -> {
              harbour.send(url + "/v1/arrivals/kittiwake", "");
              harbour.send(url + "/v1/arrivals/tern", "");
            });

    assertEquals(
        List.of(Change.NEW, Change.NEW, Change.NEW),
        cases.stream().map(CapturedCaseInfo::change).toList());
    assertEquals(1, cases.get(0).outgoing().size());
    assertEquals(1, JSON.readTree(text("background")).at("/log/entries").size());
    ReplayResult result = harbour.replay().replay();
    assertTrue(result.isSame(), () -> result.different().toString());
  }

  @Test
  void callThatIsMadeInTheBackgroundAsWellIsOneOfItsCase() throws Exception {
    harbour.capture(it -> it, url -> harbour.send(url + "/v1/arrivals/kittiwake", ""));
    String arrival = text("get-v1-arrivals-kittiwake");
    Files.writeString(
        folder.resolve("background.har"),
        arrival.replaceFirst("(?s)\\{\\s*\"_call\": \"incoming\".*?\"_call\"", "{ \"_call\""));

    ReplayResult result = harbour.replay().replay();

    assertTrue(result.isSame(), () -> result.different().get(0).explanation());
  }

  private String text(String name) throws IOException {
    return Files.readString(folder.resolve(name + ".har"));
  }

  private Map<String, String> files() throws IOException {
    Map<String, String> files = new TreeMap<>();
    try (Stream<Path> all = Files.list(folder)) {
      for (Path each : all.collect(Collectors.toList())) {
        files.put(each.getFileName().toString().replace(".har", ""), Files.readString(each));
      }
    }
    return files;
  }

  private static List<String> values(
      JsonNode array, java.util.function.Function<JsonNode, String> of) {
    List<String> all = new ArrayList<>();
    array.forEach(it -> all.add(of.apply(it)));
    return all;
  }
}
