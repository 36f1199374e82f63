// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;

/** Starts runs of {@link HarbourRun}, and reads their reports. */
final class Runs {

  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final int KILLED = 9;

  private static final String DESCRIPTION =
      """
      openapi: 3.1.0
      info: {title: Berths, version: "1"}
      paths:
        /v1/bookings:
          get:
            responses: {"200": {description: all}}
          post:
            requestBody: {content: {application/json: {schema: {type: object}}}}
            responses:
              "201": {description: booked, content: {application/json: {schema: {type: object}}}}
              "409": {description: taken}
      """;

  private static final String CASSETTE =
      """
      {"log": {"version": "1.2", "creator": {"name": "harbour", "version": "1"}, "entries": [
        {"startedDateTime": "2021-04-02T04:10:00Z", "time": 2500,
         "request": {"method": "GET", "url": "https://tides.example/v1/tides",
           "httpVersion": "HTTP/1.1", "headers": [], "queryString": [], "cookies": [],
           "headersSize": -1, "bodySize": 0},
         "response": {"status": 200, "statusText": "OK", "httpVersion": "HTTP/1.1",
           "headers": [], "cookies": [], "redirectURL": "", "headersSize": -1, "bodySize": 2,
           "content": {"size": 2, "mimeType": "application/json", "text": "{}"}},
         "cache": {}, "timings": {"send": 0, "wait": 2500, "receive": 0}}]}}
      """;

  private Runs() {}

  /** Runs one in a JVM of its own; it ends in order. */
  static void run(String name, Path report, Path files) throws Exception {
    assertEquals(0, start(name, report, files).waitFor(), said(name, files));
  }

  /** Runs one in a JVM of its own, which is killed. */
  static void crash(String name, Path report, Path files) throws Exception {
    assertEquals(KILLED, start(name, report, files).waitFor(), said(name, files));
  }

  private static Supplier<String> said(String name, Path files) {
    return () -> {
      try {
        return Files.readString(output(name, files));
      } catch (IOException unreadable) {
        return unreadable.toString();
      }
    };
  }

  private static Path output(String name, Path files) {
    return files.resolve(name + ".txt");
  }

  static Process start(String name, Path report, Path files) throws IOException {
    Files.writeString(files.resolve("berths.openapi.yaml"), DESCRIPTION);
    Files.writeString(files.resolve("tides.har"), CASSETTE);
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    // It ends before more would pay.
    command.addAll(List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC"));
    command.add("-XX:+EnableDynamicAgentLoading");
    command.add("-Dcachette.report=" + report);
    command.add("-cp");
    command.add(
        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")));
    command.addAll(List.of(HarbourRun.class.getName(), name, files.toString()));
    Process process =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(output(name, files).toFile())
            .start();
    process
        .onExit()
        .orTimeout(2, TimeUnit.MINUTES)
        .exceptionally(late -> process.destroyForcibly());
    return process;
  }

  static JsonNode json(Path report) throws IOException {
    return MAPPER.readTree(report.resolve("run.json").toFile());
  }

  /** Returns a test of the report by its name. */
  static JsonNode test(JsonNode run, String name) {
    return named(run.path("tests"), "name", name);
  }

  /** Returns the element of a list with this value. */
  static JsonNode named(JsonNode list, String member, String value) {
    for (JsonNode each : list) {
      if (each.path(member).asText().equals(value)) {
        return each;
      }
    }
    throw new AssertionError("no " + member + " \"" + value + "\" in " + list);
  }
}
