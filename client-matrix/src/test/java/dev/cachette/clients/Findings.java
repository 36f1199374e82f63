// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The findings of the matrix about the clients, as the table in docs/clients.md. */
final class Findings {

  private static final Path PAGE = Path.of("../docs/clients.md");
  private static final String BEGIN = "<!-- begin: found by ClientMatrixTest -->\n";
  private static final String END = "<!-- end -->";

  /** The column of a line, the empty text before the first bar counted. */
  private static final int FROM_BEFORE = 9;

  private final Map<Row, Set<Protocol>> spoken = new LinkedHashMap<>();
  private final Map<String, Map<Row, String>> traits = new TreeMap<>();

  /** Returns the clients that run here; of all of them, or of a few where that is enough. */
  static Stream<Row> rows() {
    Set<String> few =
        Set.of(
            "JDK HttpClient",
            "HttpURLConnection",
            "Apache HttpClient 5, classic",
            "Apache HttpClient 5, async",
            "OkHttp 5",
            "Reactor Netty (epoll)");
    return Row.all().stream()
        .filter(Row::runsHere)
        .filter(row -> !Boolean.getBoolean("matrix.few") || few.contains(row.name()));
  }

  static Throwable rootOf(Throwable thrown) {
    return thrown.getCause() == null ? thrown : rootOf(thrown.getCause());
  }

  void speaks(Row row, Protocol protocol) {
    spoken.computeIfAbsent(row, key -> EnumSet.noneOf(Protocol.class)).add(protocol);
  }

  void gzip(Row row, boolean decodes) {
    note("gzip", row, decodes ? "decodes" : "leaves it");
  }

  void redirect(Row row, boolean follows) {
    note("redirect", row, follows ? "follows" : "leaves it");
  }

  void repeats(Row row, boolean repeats) {
    note("503", row, repeats ? "asks again" : "leaves it");
  }

  void fromBefore(Row row, String outcome) {
    note("before", row, outcome);
  }

  private void note(String trait, Row row, String found) {
    traits
        .computeIfAbsent(trait, key -> new LinkedHashMap<>())
        .merge(row, found, (one, other) -> one.equals(other) ? one : "by protocol");
  }

  /** Compares the page with the findings, or writes it if requested. */
  void assertWritten() throws IOException {
    if (Boolean.getBoolean("matrix.few")) {
      return;
    }
    String page = Files.readString(PAGE);
    int begin = page.indexOf(BEGIN) + BEGIN.length();
    int end = page.indexOf(END, begin);
    String written = page.substring(begin, end);
    String found = table(written);
    if (Boolean.getBoolean("guide.refresh")) {
      Files.writeString(PAGE, page.substring(0, begin) + found + page.substring(end));
    } else if (!found.equals(written)) {
      throw new AssertionError(
          "docs/clients.md does not say what was found; run with -Dguide.refresh=true.\n" + found);
    }
  }

  private String table(String written) {
    Map<String, String> before =
        written
            .lines()
            .collect(
                Collectors.toMap(
                    line -> line.split("\\|").length > 1 ? line.split("\\|")[1].strip() : line,
                    line -> line,
                    (one, other) -> one));
    String head =
        "| client | "
            + Stream.of(Protocol.values()).map(it -> it.title).collect(Collectors.joining(" | "))
            + " | gzip | 302 | 503 | a connection from before `open()` | remarks |\n"
            + "|"
            + " --- |".repeat(Protocol.values().length + 6)
            + "\n";
    List<String> lines =
        Row.all().stream().map(row -> lineOrBefore(row, before.get(row.name()))).toList();
    return "\n" + head + String.join("\n", lines) + "\n\n";
  }

  private String lineOrBefore(Row row, @Nullable String before) {
    if (before == null) {
      return line(row, fromBefore(row));
    }
    // Whether a client has noticed in time that a connection ended is not always the same.
    boolean asBefore = !Boolean.getBoolean("guide.refresh");
    return row.runsHere()
        ? line(row, asBefore ? before.split("\\|")[FROM_BEFORE].strip() : fromBefore(row))
        : before;
  }

  private String fromBefore(Row row) {
    return traits.getOrDefault("before", Map.of()).getOrDefault(row, "-");
  }

  private String line(Row row, String fromBefore) {
    String protocols =
        Stream.of(Protocol.values())
            .map(it -> spoken.getOrDefault(row, Set.of()).contains(it) ? "yes" : "-")
            .collect(Collectors.joining(" | "));
    String others =
        Stream.of("gzip", "redirect", "503")
            .map(trait -> traits.getOrDefault(trait, Map.of()).getOrDefault(row, "-"))
            .collect(Collectors.joining(" | "));
    return "| "
        + row.name()
        + " | "
        + protocols
        + " | "
        + others
        + " | "
        + fromBefore
        + " | "
        + row.note()
        + " |";
  }
}
