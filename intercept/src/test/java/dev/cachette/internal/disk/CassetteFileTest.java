package dev.cachette.internal.disk;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
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

/** There is always a whole file, whoever writes and whoever is killed. */
class CassetteFileTest {

  /** More of them with -Dcachette.kills=200. */
  private static final int KILLS = Integer.getInteger("cachette.kills", 6);

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
    Writer.add(file, "last");
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
  void severalWritersAtOnceLoseNothing() throws Exception {
    Path file = folder.resolve("harbour.har");
    List<Process> writers = new ArrayList<>();
    for (String name : List.of("one", "two", "three")) {
      writers.add(start(file, name, 20));
    }
    for (int at = 0; at < 20; at++) {
      Writer.add(file, "here/" + at);
    }
    for (Process writer : writers) {
      assertTrue(writer.waitFor(60, TimeUnit.SECONDS));
      assertEquals(0, writer.exitValue());
    }
    Cassette cassette = CassetteFile.read(file);
    assertEquals(
        80, cassette.exchanges().stream().map(it -> it.request().uri()).distinct().count());
  }

  @Test
  void whatOtherProgramsHaveWrittenStaysAsItIs() throws IOException {
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
    Writer.add(file, "added");

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
  void whatCannotBeWrittenSaysWhy() throws IOException {
    Path notAFolder = Files.writeString(folder.resolve("file"), "");
    String said =
        assertThrows(
                CassetteException.class, () -> Writer.add(notAFolder.resolve("tides.har"), "one"))
            .getMessage();
    assertTrue(said.contains("cannot be written: "), said);
    assertTrue(said.contains("Mend: "), said);
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
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            Writer.class.getName(),
            file.toString(),
            name,
            Integer.toString(count))
        .redirectError(ProcessBuilder.Redirect.INHERIT)
        .start();
  }
}
