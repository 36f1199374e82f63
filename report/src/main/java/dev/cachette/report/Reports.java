// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes the report of a run from what its JVMs have left: {@code index.html}, {@code run.json} and
 * {@code summary.md}. The JVMs of a run do it themselves when they end; this is for JVMs that were
 * killed, and for several folders, of the modules of a build for example.
 */
public final class Reports {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  private Reports() {}

  /**
   * The numbers of a report.
   *
   * @param html the report
   * @param jvms how many JVMs it is made of
   * @param tests how many tests it shows
   * @param failed how many of them failed
   * @param unfinished how many of them have no end, because their JVM has crashed
   * @param calls how many calls they made
   * @param unexpected how many kinds of unexpected calls are among these
   */
  public record Summary(
      Path html, int jvms, int tests, int failed, int unfinished, int calls, int unexpected) {

    private static Summary of(Path html, JsonNode run) {
      JsonNode totals = run.path("totals");
      return new Summary(
          html,
          run.path("jvms").size(),
          totals.path("tests").asInt(),
          totals.path("failed").asInt(),
          totals.path("unfinished").asInt(),
          totals.path("calls").asInt(),
          totals.path("unexpected").asInt());
    }

    /** Returns it in words, without the file. */
    @Override
    public String toString() {
      return String.format(
          "%s in %s, %d failed%s; %s, %d unexpected",
          MarkdownSummary.counted(tests, "test"),
          MarkdownSummary.counted(jvms, "JVM"),
          failed,
          unfinished == 0 ? "" : ", " + unfinished + " without an end",
          MarkdownSummary.counted(calls, "call"),
          unexpected);
    }
  }

  /**
   * Writes the report of one or several folders.
   *
   * @param from folders that reports were written to
   * @param to the folder of the new one; it may be one of these
   * @throws FileSystemException if one of the folders has nothing of a run
   * @throws MalformedPart if a file in it is not of a run
   * @throws IOException if something cannot be read or written
   */
  public static Summary write(List<Path> from, Path to) throws IOException {
    List<Path> parts = new ArrayList<>();
    for (Path folder : from) {
      List<Path> ofFolder = new RunFolder(folder).parts();
      if (ofFolder.isEmpty()) {
        throw new FileSystemException(
            folder.toString(),
            null,
            "no run has been reported there. Fix: run the tests with -Dcachette.report="
                + folder.toAbsolutePath());
      }
      for (Path part : ofFolder) {
        // A folder that is given twice counts once.
        parts.add(part.toRealPath());
      }
    }
    return write(read(parts, Map.of()).values(), new RunFolder(to));
  }

  /**
   * Writes the report of all JVMs of a run so far; no other JVM does that at the same time.
   *
   * @param known what is known of some without reading it
   */
  static synchronized void writeAlone(RunFolder folder, String run, Map<Path, JvmEvents> known)
      throws IOException {
    try (FileChannel lock =
            FileChannel.open(folder.lock(), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock held = lock.lock()) {
      if (held.isValid()) {
        Map<Path, JvmEvents> jvms = read(folder.parts(run), known);
        removeRepeated(jvms);
        write(jvms.values(), folder);
      }
    }
  }

  /** Removes JVMs of which each test has run again: a daemon that builds for days has many. */
  private static void removeRepeated(Map<Path, JvmEvents> jvms) throws IOException {
    List<JvmEvents> all = List.copyOf(jvms.values());
    for (Map.Entry<Path, JvmEvents> each : Map.copyOf(jvms).entrySet()) {
      if (each.getValue().isRepeatedBy(all)) {
        Files.deleteIfExists(each.getKey());
        jvms.remove(each.getKey());
      }
    }
  }

  private static Map<Path, JvmEvents> read(List<Path> parts, Map<Path, JvmEvents> known)
      throws IOException {
    RunReader reader = new RunReader();
    Map<Path, JvmEvents> jvms = new LinkedHashMap<>();
    for (Path part : parts) {
      JvmEvents events = known.get(part);
      jvms.put(part, events == null ? reader.read(part) : events);
    }
    return jvms;
  }

  private static Summary write(Collection<JvmEvents> jvms, RunFolder to) throws IOException {
    ObjectNode run = Run.of(jvms);
    Files.createDirectories(to.path());
    replace(to.json(), MAPPER.writeValueAsBytes(run));
    replace(to.summary(), MarkdownSummary.of(run).getBytes(StandardCharsets.UTF_8));
    replace(to.html(), HtmlReport.of(run).getBytes(StandardCharsets.UTF_8));
    return Summary.of(to.html(), run);
  }

  /** A reader never sees half of a file. */
  private static void replace(Path file, byte[] content) throws IOException {
    String name = file.getFileName() + ".new-" + ProcessHandle.current().pid();
    Path fresh = file.resolveSibling(name);
    try {
      Files.write(fresh, content);
      Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(fresh);
    }
  }
}
