// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import dev.cachette.calls.MadeBy;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * With each client, kept over tests, the test of a call is the right one or cannot be told: the
 * truth is in its path.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class MadeByMatrixTest {

  private static final int TESTS = 6;

  /** They write on the thread of their caller. */
  private static final Set<String> ALWAYS_TOLD =
      Set.of(
          "HttpURLConnection",
          "Apache HttpClient 4",
          "Apache HttpClient 5, classic",
          "AWS SDK 2, Apache",
          "AWS SDK 2, URL connection",
          "Feign",
          "Google HTTP client",
          "Jersey client");

  private static final ExecutorService POOL = Executors.newFixedThreadPool(3);

  static Stream<Row> clients() {
    return Row.all().stream().filter(Row::runsHere);
  }

  @AfterAll
  static void end() {
    POOL.shutdownNow();
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  void theTestOfACallIsRightOrCannotBeTold(Row row) throws Exception {
    List<String> wrong = new ArrayList<>();
    int all = 0;
    int certain = 0;
    for (Protocol protocol : row.protocols()) {
      try (HarbourClient client = row.create(protocol);
          Cachette net = Cachette.open()) {
        net.stub("GET " + protocol.scheme + "://tides.example/{test}").answer(text("ok"));
        for (int number = 0; number < TESTS; number++) {
          String test = "test" + number;
          try (Cachette.Scope scope = net.scope("dev.example.Matrix", test)) {
            String url = protocol.scheme + "://tides.example/" + test;
            assertEquals("ok", client.get(url).body());
            call(client, url);
            for (Call call : net.calls().stream().toList()) {
              MadeBy madeBy = call.madeBy();
              all++;
              if (madeBy.evidence().isCertain()) {
                certain++;
                if (!madeBy.test().equals(Optional.of("Matrix." + call.variables().get("test")))) {
                  wrong.add("\n" + protocol + ", " + call + ": " + madeBy);
                }
              }
            }
            assertEquals(3, net.calls().stream().count(), "none was refused as late");
          }
        }
      }
    }
    assertEquals(List.of(), wrong, row.name());
    assertTrue(certain == all || !ALWAYS_TOLD.contains(row.name()), certain + " of " + all);
  }

  private static void call(HarbourClient client, String url) throws Exception {
    CompletableFuture<String> one = CompletableFuture.supplyAsync(() -> body(client, url), POOL);
    CompletableFuture<String> other = CompletableFuture.supplyAsync(() -> body(client, url), POOL);
    assertEquals("ok", one.get());
    assertEquals("ok", other.get());
  }

  private static String body(HarbourClient client, String url) {
    try {
      return client.get(url).body();
    } catch (Exception failed) {
      throw new IllegalStateException(failed);
    }
  }
}
