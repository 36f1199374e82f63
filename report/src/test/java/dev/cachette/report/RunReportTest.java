// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.internal.json.JsonSchemas;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The report of a run: of one JVM, of several, and of one that crashed. */
class RunReportTest {

  private static final Path SCHEMA = Path.of("..", "docs", "schema", "cachette-run.schema.json");

  @TempDir static Path shared;

  @TempDir Path folder;

  private static Path report;
  private static JsonNode run;

  @BeforeAll
  static void runTheArrival() throws Exception {
    report = shared.resolve("report");
    Runs.run("arrival", report, shared);
    run = Runs.json(report);
  }

  @Test
  void conformsToItsSchema() throws IOException {
    JsonNode schema = new ObjectMapper().readTree(SCHEMA.toFile());

    assertEquals(List.of(), new JsonSchemas(schema).differences(run));
  }

  @Test
  void everyTestHasItsOutcome() {
    assertEquals(
        10, run.path("tests").size(), run.path("tests").findValuesAsText("name")::toString);
    assertEquals(
        "passed", Runs.test(run, "BerthDeskTest.repeatsABooking").path("outcome").asText());
    JsonNode taken = Runs.test(run, "BerthDeskTest.findsTheBerthTaken");
    assertEquals("failed", taken.path("outcome").asText());
    assertTrue(taken.path("failure").asText().contains("the berth is taken"));
    assertEquals(run.path("totals").path("failed").asInt(), outcomes("failed"));
    assertEquals(0, outcomes("unfinished"));
  }

  private static long outcomes(String wanted) {
    return stream(run.path("tests"))
        .filter(test -> test.path("outcome").asText().equals(wanted))
        .count();
  }

  @Test
  void aRepeatedCallNamesTheOneThatFailed() {
    JsonNode calls = Runs.test(run, "BerthDeskTest.repeatsABooking").path("calls");

    assertEquals(
        List.of(503, 201), calls.findValues("answer").stream().map(JsonNode::asInt).toList());
    assertFalse(calls.path(0).has("repeats"));
    assertEquals(calls.path(0).path("number"), calls.path(1).path("repeats"));
    assertEquals("{\"berth\":\"B-4\"}", calls.path(1).path("response").path("body").asText());
  }

  @Test
  void theTimeLineTellsWaitingAtAGateFromTheRest() {
    JsonNode test = Runs.test(run, "BerthDeskTest.waitsForTheGate");

    assertEquals(2, test.path("calls").size());
    for (JsonNode call : test.path("calls")) {
      JsonNode times = call.path("times");
      List<Double> inOrder =
          Stream.of("matched", "held", "released", "firstByte", "answered")
              .map(stage -> times.path(stage).asDouble(-1))
              .toList();
      assertEquals(inOrder.stream().sorted().toList(), inOrder);
      assertTrue(inOrder.get(0) >= 0, times::toString);
      assertTrue(times.path("answered").asDouble() <= call.path("durationMillis").asDouble());
    }
    // Both waited at the same time, which counts once.
    double longest = test.path("durationMillis").asDouble();
    assertTrue(test.path("waitingMillis").asDouble() <= longest, test::toString);
  }

  /** A run that was made again, by another JVM or by hand, counts once. */
  @Test
  void sweepsHaveTheirRuns() {
    JsonNode sweep = run.path("sweeps").path(0);

    assertEquals(1, run.path("sweeps").size());
    assertEquals("the arrival", sweep.path("name").asText());
    assertEquals(
        List.of("1/UNKNOWN_HOST/", "1/NULL_MEMBER/$.berth", "1/NULL_MEMBER/$.from"),
        sweep.path("runs").findValuesAsText("id"));
  }

  @Test
  void anUnexpectedCallIsExplained() {
    JsonNode test = Runs.test(run, "BerthDeskTest.forgetsAStub");

    assertEquals("failed", test.path("outcome").asText());
    assertEquals(1, test.path("unexpected").size());
    assertTrue(
        test.path("unexpected").path(0).path("explanation").asText().contains("Unexpected call"));
    assertTrue(test.path("calls").path(0).path("unexpected").asBoolean());
    assertEquals(1, run.path("totals").path("unexpected").asInt());
  }

  @Test
  void unusedAndUnreachableStubsAndAnswersNeverGivenAreListed() {
    JsonNode stubs = run.path("stubs");

    JsonNode booking = Runs.named(stubs, "name", "book a berth");
    assertEquals(
        List.of(1, 1, 0),
        booking.path("answers").findValues("calls").stream().map(JsonNode::asInt).toList());
    assertEquals(0, Runs.named(stubs, "name", "charts").path("calls").asInt());
    assertEquals(1, Runs.named(stubs, "name", "charts").path("unusedIn").asInt());
    assertTrue(
        Runs.named(stubs, "name", "tides, first")
            .path("coveredBy")
            .asText()
            .contains("tides, again"));
    assertFalse(Runs.named(stubs, "name", "charts").has("coveredBy"));
  }

  @Test
  void theMatrixOfAnApiDescriptionSaysWhatNoTestMet() {
    JsonNode service = run.path("descriptions").path(0);

    assertEquals(3, service.path("documented").asInt());
    assertEquals(1, service.path("met").asInt());
    assertEquals(33, service.path("percent").asInt());
    JsonNode post = Runs.named(service.path("operations"), "operation", "POST /v1/bookings");
    assertEquals("201", post.path("statuses").path(0).path("status").asText());
    assertEquals("application/json", post.path("statuses").path(0).path("mediaType").asText());
    assertEquals(1, post.path("statuses").path(0).path("calls").asInt());
    assertEquals(0, post.path("statuses").path(1).path("calls").asInt());
  }

  @Test
  void faultsAreCountedByServiceAlsoThoseBeforeACall() {
    JsonNode faults = run.path("faults");

    assertEquals(
        "connection reset",
        Runs.named(faults, "service", "customs.example")
            .path("faults")
            .path(0)
            .path("fault")
            .asText());
    assertEquals(
        "unknown host",
        Runs.named(faults, "service", "id.example").path("faults").path(0).path("fault").asText());
  }

  @Test
  void cassettesSayWhatWasReplayedAndWhatItWouldHaveTaken() {
    JsonNode cassette = run.path("cassettes").path(0);

    assertEquals(1, run.path("cassettes").size());
    assertEquals(1, cassette.path("replayed").asInt());
    assertEquals(2500, cassette.path("realMillis").asInt());
    assertTrue(cassette.path("stale").asBoolean());
    assertEquals(2500, run.path("totals").path("recordedServicesMillis").asInt());
  }

  @Test
  void noFileHasASecret() throws IOException {
    try (Stream<Path> files = Files.walk(report)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        assertFalse(Files.readString(file).contains(HarbourRun.SECRET), file::toString);
      }
    }
  }

  @Test
  void theSummaryIsMarkdownWhateverNamesAre() throws IOException {
    String summary = Files.readString(report.resolve("summary.md"));

    assertTrue(summary.startsWith("## HTTP calls of the tests\n\n10 tests, "), summary);
    assertTrue(summary.contains("### Unexpected calls"), summary);
    assertTrue(summary.contains("- `charts` ("), summary);
    assertTrue(summary.contains("| `https://berths.example` | 3 | 1 (33 %) |"), summary);
  }

  @Test
  void theJvmsOfAModuleAreMerged() throws Exception {
    Process one = Runs.start("arrival", folder.resolve("report"), folder);
    Process other = Runs.start("tides", folder.resolve("report"), folder);
    assertEquals(0, one.waitFor());
    assertEquals(0, other.waitFor());

    JsonNode merged = Runs.json(folder.resolve("report"));
    assertEquals(2, merged.path("jvms").size());
    assertEquals(11, merged.path("tests").size());
    assertEquals("passed", Runs.test(merged, "TidesTest.reads").path("outcome").asText());
  }

  @Test
  void aFolderThatIsGivenTwiceCountsOnce() throws Exception {
    Runs.run("tides", folder, folder);

    Reports.Summary summary =
        Reports.write(List.of(folder, folder.resolve("..").resolve(folder.getFileName())), folder);

    assertEquals(1, summary.tests());
    assertEquals(1, summary.jvms());
  }

  @Test
  void aTestThatRunsAgainCountsOnce() throws Exception {
    Runs.run("tides", folder, folder);
    Runs.run("tides", folder, folder);

    JsonNode merged = Runs.json(folder);
    assertEquals(1, merged.path("jvms").size());
    assertEquals(1, merged.path("tests").size());
    assertEquals(1, new RunFolder(folder).parts().size());
  }

  @Test
  void aCrashLeavesWhatThereWas() throws Exception {
    Runs.crash("crash", folder, folder);
    assertFalse(Files.exists(folder.resolve("index.html")));

    Reports.Summary summary = Reports.write(List.of(folder), folder);

    JsonNode crashed = Runs.json(folder);
    assertEquals(1, summary.unfinished());
    assertFalse(crashed.path("jvms").path(0).has("endedAt"));
    assertEquals("passed", Runs.test(crashed, "TidesTest.passes").path("outcome").asText());
    JsonNode test = Runs.test(crashed, "TidesTest.crashes");
    assertEquals("unfinished", test.path("outcome").asText());
    assertTrue(test.path("calls").path(0).path("response").path("body").asText().contains("16:35"));
  }

  @Test
  void aLineThatWasBeingWrittenIsLeftOut() throws Exception {
    Runs.run("tides", folder, folder);
    Path part = new RunFolder(folder).parts().get(0);
    String whole = Files.readString(part);
    int tests = Runs.json(folder).path("tests").size();

    // Cut anywhere, it is a report; only the beginning is needed.
    for (int length = 0; length <= whole.length(); length += 1 + whole.length() / 200) {
      Files.writeString(part, whole.substring(0, length));
      if (length == 0 || length >= whole.indexOf('\n')) {
        assertTrue(Reports.write(List.of(folder), folder).tests() <= tests);
      } else {
        assertThrows(MalformedPart.class, () -> Reports.write(List.of(folder), folder));
      }
    }
  }

  @Test
  void whatIsNoReportIsRefusedWithItsPlace() throws Exception {
    FileSystemException none =
        assertThrows(FileSystemException.class, () -> Reports.write(List.of(folder), folder));
    assertTrue(none.getReason().contains("-Dcachette.report="), none.getReason());

    Files.createDirectories(folder.resolve("jvms"));
    Path part = folder.resolve("jvms").resolve("tides.jsonl");
    for (String content :
        List.of(
            "tides\n", "[]\n{}\n", "{\"event\":\"jvm\",\"at\":1,\"format\":99}\n", "\u0000\n")) {
      Files.writeString(part, content);
      MalformedPart refused =
          assertThrows(MalformedPart.class, () -> Reports.write(List.of(folder), folder));
      assertTrue(refused.getMessage().contains("tides.jsonl:1 "), refused.getMessage());
    }
    Files.write(part, new byte[] {(byte) 0xff, (byte) 0xfe, 1});
    assertThrows(MalformedPart.class, () -> Reports.write(List.of(folder), folder));
  }

  @ParameterizedTest
  @ValueSource(strings = {"many", "lost"})
  @Tag("once")
  void fiveThousandCallsStayUnderFiveMegabytes(String name) throws Exception {
    Runs.run(name, folder, folder);

    assertEquals(5_000, Runs.json(folder).path("totals").path("calls").asInt());
    long size = Files.size(folder.resolve("index.html"));
    assertTrue(size < 5_000_000, () -> size + " bytes");
    String html = Files.readString(folder.resolve("index.html"));
    assertFalse(html.contains("\"callsNotShown\""));
  }

  @Test
  @Tag("once")
  void aLongBodyIsCut() throws Exception {
    Runs.run("many", folder, folder);

    String call = Runs.json(folder).path("tests").path(0).path("calls").path(0).toString();
    assertTrue(call.contains("\"cut\":true"), call);
  }

  private static Stream<JsonNode> stream(JsonNode list) {
    return StreamSupport.stream(list.spliterator(), false);
  }
}
