// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.disk;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import java.io.BufferedReader;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** The file is always complete, with concurrent and killed writers too. */
class CassetteFileTest {

  /** More of them with -Dcachette.kills=200. */
  private static final int KILLS = Integer.getInteger("cassette.kills", 6);

  @TempDir Path folder;

  @Test
  @Timeout(600)
  void aWriterThatIsKilledLosesNothingThatItHadWritten() throws Exception {
    Path file = folder.resolve("harbour.har");
    Random random = new Random(7);
    int least = 0;
    for (int kill = 0; kill < KILLS; kill++) {
      int said = killAfter(random.nextInt(30), start(file, "kill" + kill, 1_000));
      least += said;
      if (Files.exists(file)) {
        int held = CassetteFile.read(file).exchanges().size();
        assertTrue(held >= least, held + " exchanges of " + least);
        least = held;
      }
      if (Files.exists(file) && Files.size(file) > 1_000_000) {
        Files.delete(file);
        least = 0;
      }
    }
    RecordingJvm.add(file, "last");
    try (Stream<Path> left = Files.list(folder)) {
      assertEquals(List.of(file), left.toList());
    }
  }

  /** Kills a writer while it writes, and answers how often it said that it had written. */
  private static int killAfter(int lines, Process writer) throws Exception {
    int written = 0;
    try (BufferedReader said =
        new BufferedReader(
            new InputStreamReader(writer.getInputStream(), StandardCharsets.UTF_8))) {
      assertEquals("ready", said.readLine());
      while (written < lines && said.readLine() != null) {
        written++;
      }
      writer.destroyForcibly();
      assertTrue(writer.waitFor(30, TimeUnit.SECONDS));
      while (said.ready() && said.readLine().startsWith("written")) {
        written++;
      }
    }
    return written;
  }

  @Test
  void concurrentWritersLoseNothing() throws Exception {
    Path file = folder.resolve("harbour.har");
    List<Process> writers = new ArrayList<>();
    for (String name : List.of("one", "two", "three")) {
      writers.add(start(file, name, 10));
    }
    for (int at = 0; at < 10; at++) {
      RecordingJvm.add(file, "here/" + at);
    }
    for (Process writer : writers) {
      assertTrue(writer.waitFor(60, TimeUnit.SECONDS));
      assertEquals(0, writer.exitValue());
    }
    CassetteContent cassette = CassetteFile.read(file);
    assertEquals(
        40, cassette.exchanges().stream().map(it -> it.request().uri()).distinct().count());
  }

  @Test
  void aCassetteOfOneGibibyteNeedsLittleMemory() throws Exception {
    Path file = folder.resolve("large.har");
    try (Writer out = Files.newBufferedWriter(file)) {
      out.write("{\"log\":{\"version\":\"1.2\",\"entries\":[");
      String body = "tides of Marrow Bay ".repeat(52_500);
      for (int number = 0; number < 1024; number++) {
        out.write(number == 0 ? "" : ",");
        out.write(
            "{\"startedDateTime\":\"2031-04-02T10:00:00Z\",\"request\":{\"method\":\"GET\","
                + ("\"url\":\"https://tides.example/v1/" + number + "\"},")
                + ("\"response\":{\"status\":200,\"content\":{\"text\":\"" + body + "\"}}}"));
      }
      out.write("]}}");
    }
    assertTrue(Files.size(file) > 1L << 30);
    Process reader = java(List.of("-Xmx64m"), Reader.class, file.toString());
    String said = new String(reader.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertTrue(reader.waitFor(60, TimeUnit.SECONDS));
    assertEquals("1024 exchanges, 1050000 bytes", said);
  }

  /** A JVM that answers from a cassette, with little memory. */
  static final class Reader {

    private Reader() {}

    /** Takes the file. */
    public static void main(String[] arguments) throws IOException {
      try (CassetteFile file = new CassetteFile(Path.of(arguments[0]))) {
        LoadedCassette cassette =
            new LoadedCassette(
                "large", CassetteSettings.defaults(), RecordingMode.REPLAY, file.open());
        Request last = RecordingJvm.request("1023");
        int size =
            cassette.replay(last).orElseThrow().exchange().response().orElseThrow().body().size();
        String said = cassette.known().size() + " exchanges, " + size + " bytes";
        new FileOutputStream(FileDescriptor.out).write(said.getBytes(StandardCharsets.UTF_8));
      }
    }
  }

  @Test
  void membersOfOtherProgramsAreKept() throws IOException {
    Path file = folder.resolve("browser.har");
    Files.writeString(
        file,
        """
        {"log":{"version":"1.2","creator":{"name":"desk","version":"7"},
        "pages":[{"id":"p1","title":"Harbour","pageTimings":{}}],"comment":"by hand",
        "entries":[{"startedDateTime":"2031-04-02T10:00:00+01:00","time":1.5,"pageref":"p1",
        "request":{"method":"GET","url":"https://tides.example/v1/browser","headers":[]},
        "response":{"status":200,"content":{"text":"tides"}},"_own":{"b":1,"a":2}}]},"more":1}
        """);
    RecordingJvm.add(file, "added");

    String written = Files.readString(file);
    for (String kept :
        List.of(
            "\"_own\":{\"b\":1,\"a\":2}",
            "\"pageref\":\"p1\"",
            "\"comment\": \"by hand\"",
            "\"title\": \"Harbour\"",
            "\"name\": \"desk\"",
            "\"more\": 1")) {
      assertTrue(written.contains(kept), kept + " in " + written);
    }
    assertEquals(2, CassetteFile.read(file).exchanges().size());
    assertEquals("tides", CassetteFile.read(file).exchanges().get(0).response().get().text());
  }

  @Test
  void stubsThatCannotBeWrittenAreExplained() throws IOException {
    Path notAFolder = Files.writeString(folder.resolve("file"), "");
    String said =
        assertThrows(
                CassetteException.class,
                () -> RecordingJvm.add(notAFolder.resolve("tides.har"), "one"))
            .getMessage();
    assertTrue(said.contains("cannot be written: "), said);
    assertTrue(said.contains("Fix: "), said);
  }

  @Test
  void namesAreFilesOnEverySystem() {
    assertEquals(folder.resolve("harbour/arrival.har"), CassetteName.in(folder, "harbour/arrival"));
    assertEquals(folder.resolve("tides.HAR"), CassetteName.in(folder, "tides.HAR"));
    for (String bad : List.of("", " ", "../tides", "a//b", "/tides", "a:b", "tides?", "a/.b")) {
      String said =
          assertThrows(IllegalArgumentException.class, () -> CassetteName.in(folder, bad))
              .getMessage();
      assertTrue(said.contains("cannot be the name of a cassette"), said);
    }
  }

  private static Process start(Path file, String name, int count) throws IOException {
    return java(List.of(), RecordingJvm.class, file.toString(), name, Integer.toString(count));
  }

  private static Process java(List<String> options, Class<?> main, String... arguments)
      throws IOException {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(options);
    command.addAll(List.of("-cp", System.getProperty("java.class.path"), main.getName()));
    command.addAll(List.of(arguments));
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT).start();
  }
}
