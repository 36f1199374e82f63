// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * The cost of the run report: JVMs with 1,000 tests of five calls each, with and without it,
 * alternating; measured from outside, to the end of the JVM, which writes the report.
 */
public final class ReportedRun {

  private static final int TESTS = 1_000;
  private static final int CALLS = 5;
  private static final String VESSEL =
      """
      {"name": "Gull", "length": 23.4, "draught": 3.1, "berth": "B-%d", "notes": "%s"}\
      """;

  private ReportedRun() {}

  /**
   * Runs.
   *
   * @param arguments the number of JVMs of each kind; or, in one of these, how long a test works,
   *     in milliseconds, and the folder of the report, if it has one
   */
  public static void main(String[] arguments) throws Exception {
    if (arguments[0].equals("tests")) {
      tests(Integer.parseInt(arguments[1]), arguments.length > 2 ? arguments[2] : null);
    } else {
      compare(Integer.parseInt(arguments[0]), System.out);
    }
  }

  private static void compare(int rounds, PrintStream out) throws Exception {
    out.printf("Java %s, %d JVMs of each kind%n", Runtime.version(), rounds);
    for (int work : new int[] {0, 30}) {
      List<Long> with = new ArrayList<>();
      List<Long> without = new ArrayList<>();
      long size = 0;
      for (int round = 0; round < rounds; round++) {
        without.add(inFreshJvm(work));
        Path folder = Files.createTempDirectory("reported");
        with.add(inFreshJvm(work, folder.toString()));
        size = Files.size(folder.resolve("index.html"));
      }
      out.printf(
          "  tests that work %2d ms: with report %5d ms, without %5d ms, ratio %.3f; page %d KB%n",
          work,
          StartUp.median(with),
          StartUp.median(without),
          (double) StartUp.median(with) / StartUp.median(without),
          size / 1024);
    }
  }

  private static long inFreshJvm(int work, String... folder) throws Exception {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+EnableDynamicAgentLoading",
                "-cp",
                System.getProperty("java.class.path"),
                ReportedRun.class.getName(),
                "tests",
                Integer.toString(work)));
    command.addAll(List.of(folder));
    long begun = System.nanoTime();
    int status = new ProcessBuilder(command).inheritIO().start().waitFor();
    if (status != 0) {
      throw new IOException("a JVM ended with " + status);
    }
    return TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begun);
  }

  private static void tests(int work, String folder) throws Exception {
    Settings settings = Settings.defaults();
    if (folder != null) {
      settings = settings.report(Path.of(folder));
    }
    try (Cachette net = Cachette.open(settings)) {
      for (int test = 0; test < TESTS; test++) {
        try (Cachette.Scope scope = net.scope("BerthDeskTest", "books" + test)) {
          net.stub("POST https://berths.example/v1/bookings")
              .answer(json(VESSEL.formatted(test, "x".repeat(300))));
          work(work);
          for (int call = 0; call < CALLS; call++) {
            post("https://berths.example/v1/bookings", VESSEL.formatted(call, "y".repeat(200)));
          }
        }
      }
    }
  }

  /** Keeps a processor busy, as the code under test does besides calling. */
  private static void work(int millis) {
    long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(millis);
    while (System.nanoTime() < until) {
      Thread.onSpinWait();
    }
  }

  private static void post(String url, String body) throws IOException {
    HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
    connection.setRequestMethod("POST");
    connection.setRequestProperty("content-type", "application/json");
    connection.setDoOutput(true);
    connection.getOutputStream().write(body.getBytes(StandardCharsets.UTF_8));
    try (InputStream in = connection.getInputStream()) {
      in.readAllBytes();
    }
  }
}
