// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.junit.CachetteExtension;
import dev.cachette.junit.InterceptHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.HttpTimeoutException;
import java.time.Duration;
import java.util.concurrent.CompletionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/faults.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class FaultsGuideTest {

  private static final ResponseAnswer TIDES = json("{\"high\":\"04:10\"}");

  @RegisterExtension
  final CachetteExtension cachette =
      CachetteExtension.with(Settings.defaults().seed(7).unusedStubs(UnusedStubs.IGNORE));

  @Test
  void inTurn(Cachette net) {
    // snippet in-turn
    net.stub("GET https://tides.example/v1/tides")
        .answer(connectionReset(), status(503), truncated(TIDES), TIDES);
    // end

    String url = "https://tides.example/v1/tides";
    assertThrows(IllegalStateException.class, () -> Http.call("GET", url));
  }

  @Test
  void early(Cachette net) {
    // snippet early
    net.stub("GET https://tides.example/v1/tides").answer(unknownHost(), TIDES);
    net.stub("GET https://berths.example/v1/berths").answer(connectionRefused());
    net.stub("GET https://customs.example/v1/forms").answer(connectTimeout());
    net.stub("GET https://id.example/v1/keys").answer(expiredCertificate());
    // end

    assertThrows(IllegalStateException.class, () -> Http.call("GET", "https://id.example/v1/keys"));
  }

  @Test
  void content(Cachette net) {
    // snippet content
    net.stub("GET https://tides.example/v1/tides").answer(invalidJson(TIDES));
    net.stub("GET https://berths.example/v1/berths").answer(noResponse());
    // end

    assertEquals(200, Http.call("GET", "https://tides.example/v1/tides").statusCode());
  }

  @Test
  void timesOutByTheClock(Cachette net) {
    HttpClient client = HttpClient.newHttpClient();
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("https://berths.example/v1/berths"))
            .timeout(Duration.ofSeconds(30))
            .build();
    // snippet timeout
    net.stub("GET https://berths.example/v1/berths").answer(noResponse());
    var call = client.sendAsync(request, BodyHandlers.ofString()); // with a timeout of 30 seconds
    net.calls().awaitArrival(1, Duration.ofSeconds(5));
    net.clock().advance(Duration.ofSeconds(31));
    // end

    var failed = assertThrows(CompletionException.class, call::join);
    assertInstanceOf(HttpTimeoutException.class, failed.getCause());
  }

  @Test
  void habits(Cachette net) {
    // snippet service-behavior
    net.stub("GET https://tides.example/v1/tides")
        .answer(TIDES)
        .rateLimit(5, Duration.ofMinutes(1));
    net.stub("GET https://berths.example/v1/berths").answer(text("B-12")).failFirst(2);
    net.stub("GET https://id.example/v1/keys")
        .answer(text("a key"))
        .flaky(0.2, status(502), connectionReset());
    // end

    assertEquals(503, Http.call("GET", "https://berths.example/v1/berths").statusCode());
  }

  @Test
  void passesThrough(Cachette net) {
    // snippet passthrough
    net.letThrough("*.metrics.example", "ledger.example:5432");
    net.letThrough("GET https://tides.example/v1/health");
    net.stub("GET https://tides.example/v1/tides")
        .answer(realService().transformed(real -> real.header("x-desk", "north")));
    // end
  }
}
