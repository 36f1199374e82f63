// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.Factories.json;

import dev.cachette.Cachette;
import dev.cachette.sweep.FaultSweep;
import dev.cachette.sweep.result.SweepResult;
import java.io.IOException;
import java.io.PrintStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;

/**
 * A fault sweep of a scenario of 20 calls to four services over HTTPS, with all faults; and its 20
 * calls alone as often, for comparison. The argument is the number of rounds.
 */
public final class SweptScenario {

  private static final int CALLS = 20;

  private static final HttpClient HTTP =
      HttpClient.newBuilder().connectTimeout(Duration.ofMillis(500)).build();

  private SweptScenario() {}

  /** Measures. */
  public static void main(String[] arguments) throws Exception {
    int rounds = arguments.length == 0 ? 3 : Integer.parseInt(arguments[0]);
    try (Cachette net = Cachette.open();
        PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8)) {
      for (int service = 0; service < 4; service++) {
        net.stub("POST https://service" + service + ".example/v1/steps/{step}")
            .answer(json(Map.of("berth", "B-12", "metres", 4)));
      }
      for (int round = 0; round < rounds; round++) {
        long begin = System.nanoTime();
        SweepResult result =
            FaultSweep.of(net, SweptScenario::scenario).allow(IOException.class).run();
        long swept = System.nanoTime() - begin;
        result.assertRight();
        long again = System.nanoTime();
        for (int run = 0; run < result.runs().size(); run++) {
          scenario();
        }
        long alone = System.nanoTime() - again;
        out.printf(
            Locale.ROOT,
            "%d runs of %d calls: swept %.1f s, alone %.1f s%n",
            result.runs().size(),
            CALLS,
            swept / 1e9,
            alone / 1e9);
      }
    }
  }

  private static int scenario() throws IOException, InterruptedException {
    for (int call = 0; call < CALLS; call++) {
      HttpRequest request =
          HttpRequest.newBuilder(
                  URI.create("https://service" + call % 4 + ".example/v1/steps/" + call))
              .timeout(Duration.ofSeconds(10))
              .POST(BodyPublishers.ofString("{}"))
              .build();
      HttpResponse<String> response = HTTP.send(request, BodyHandlers.ofString());
      if (response.statusCode() != 200 || !response.body().contains("\"berth\":\"B-12\"")) {
        throw new IOException(request.uri() + " answered " + response.statusCode());
      }
    }
    return CALLS;
  }
}
