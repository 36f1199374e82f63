// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;

/**
 * Loads 10,000 stubs from one file in new JVMs, alternating with the YAML parser alone on the same
 * file. It measures the call, not the start of the JVM.
 */
public final class ManyStubs {

  private static final int STUBS = 10_000;
  private static final String SHORT =
      """
        - request: GET https://tides.example/v1/stations/%1$d
          answer: { json: { station: %1$d } }
      """;
  private static final String LONG =
      """
        - name: tides of station %1$d
          request: GET https://tides.example/v1/stations/%1$d/tides
          answer:
            json: { station: %1$d, high: ["04:10", "16:35"], low: ["10:21", "22:48"] }
      """;

  private ManyStubs() {}

  /**
   * Runs.
   *
   * @param arguments the number of JVMs of each kind; or, in one of these, {@code load} or {@code
   *     parse} and the file; or {@code short} or {@code long} to print such a file
   */
  public static void main(String[] arguments) throws Exception {
    PrintStream out = System.out;
    switch (arguments[0]) {
      case "load" -> out.println(load(arguments[1]));
      case "parse" -> out.println(parse(Path.of(arguments[1])));
      case "short" -> out.print(file(SHORT));
      case "long" -> out.print(file(LONG));
      default -> compare(Integer.parseInt(arguments[0]), out);
    }
  }

  private static long load(String file) {
    Settings settings = Settings.defaults().withoutInterception().unusedStubs(UnusedStubs.IGNORE);
    try (Cachette net = Cachette.open(settings)) {
      long begun = System.nanoTime();
      int loaded = net.load(file).stubs().size();
      return millisSince(begun, loaded == STUBS);
    }
  }

  private static long parse(Path file) throws IOException {
    long begun = System.nanoTime();
    LoadSettings settings = LoadSettings.builder().setCodePointLimit(1 << 28).build();
    long events = 0;
    for (Object each : new Parse(settings).parseString(Files.readString(file))) {
      events += each == null ? 0 : 1;
    }
    return millisSince(begun, events > STUBS);
  }

  private static long millisSince(long begun, boolean whole) {
    if (!whole) {
      throw new IllegalStateException("that was not the whole file");
    }
    return TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begun);
  }

  private static void compare(int rounds, PrintStream out) throws Exception {
    out.printf("Java %s, %,d stubs, %d JVMs of each kind%n", Runtime.version(), STUBS, rounds);
    for (String stub : List.of(SHORT, LONG)) {
      Path file = Files.createTempFile("many", ".stubs.yaml");
      try {
        Files.writeString(file, file(stub));
        List<Long> loads = new ArrayList<>();
        List<Long> parses = new ArrayList<>();
        for (int round = 0; round < rounds; round++) {
          loads.add(inFreshJvm("load", file));
          parses.add(inFreshJvm("parse", file));
        }
        out.printf(
            "  %4d KB: load median %d ms (%s), parser alone %d ms, ratio %.2f%n",
            Files.size(file) / 1024,
            StartUp.median(loads),
            loads.stream().sorted().map(Object::toString).collect(Collectors.joining(" ")),
            StartUp.median(parses),
            (double) StartUp.median(loads) / StartUp.median(parses));
      } finally {
        Files.delete(file);
      }
    }
  }

  private static String file(String stub) {
    return IntStream.range(0, STUBS)
        .mapToObj(stub::formatted)
        .collect(Collectors.joining("", "stubs:\n", ""));
  }

  private static long inFreshJvm(String what, Path file) throws IOException {
    Process process =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp",
                System.getProperty("java.class.path"),
                ManyStubs.class.getName(),
                what,
                file.toString())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    return Long.parseLong(said.strip());
  }
}
