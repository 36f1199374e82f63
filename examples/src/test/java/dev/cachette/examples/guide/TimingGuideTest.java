// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Event;
import dev.cachette.answer.Feed;
import dev.cachette.answer.Gate;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.junit.CachetteExtension;
import dev.cachette.junit.InterceptHttp;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/timing.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class TimingGuideTest {

  private static final String URL = "https://tides.example/v1/tides";
  private static final ResponseAnswer TIDES = json("{\"high\":\"04:10\"}");

  @RegisterExtension
  final CachetteExtension cachette =
      CachetteExtension.with(Settings.defaults().unusedStubs(UnusedStubs.IGNORE));

  @Test
  void delays(Cachette net) {
    // snippet delays
    net.stub("GET https://tides.example/v1/tides")
        .answer(
            TIDES.delayed(Duration.ofMillis(20)),
            TIDES.delayed(Duration.ofMillis(5), Duration.ofMillis(50)),
            TIDES.pausedBeforeBody(Duration.ofMillis(20)),
            TIDES.inPieces(4, Duration.ofMillis(5)),
            TIDES.atRate(1_000));
    // end

    for (int call = 0; call < 5; call++) {
      assertEquals("{\"high\":\"04:10\"}", Http.call("GET", URL).body());
    }
  }

  @Test
  void gate(Cachette net) {
    // snippet gate
    Gate gate = new Gate();
    net.stub("GET https://tides.example/v1/tides").answer(TIDES.heldBy(gate));

    CompletableFuture<HttpResponse<String>> loading =
        CompletableFuture.supplyAsync(() -> Http.call("GET", URL));
    net.calls().awaitArrival(1, Duration.ofSeconds(20));
    assertFalse(loading.isDone());

    gate.open();
    assertEquals("{\"high\":\"04:10\"}", loading.join().body());
    // end
  }

  @Test
  void streams(Cachette net) {
    // snippet streams
    net.stub("GET https://berths.example/v1/arrivals")
        .answer(
            events(Event.of("Kittiwake").named("berthed").id("1"), Event.of("Petrel"))
                .pausing(Duration.ofMillis(5)));
    net.stub("GET https://berths.example/v1/log")
        .answer(stream("application/x-ndjson", "{\"berth\":1}\n", "{\"berth\":2}\n"));
    // end

    assertEquals(
        "event: berthed\nid: 1\ndata: Kittiwake\n\ndata: Petrel\n\n",
        Http.call("GET", "https://berths.example/v1/arrivals").body());
  }

  @Test
  void feed(Cachette net) {
    // snippet feed
    Feed arrivals = new Feed();
    net.stub("GET https://berths.example/v1/arrivals")
        .answer(stream("text/event-stream", arrivals));

    CompletableFuture<HttpResponse<String>> following =
        CompletableFuture.supplyAsync(() -> Http.call("GET", "https://berths.example/v1/arrivals"));
    arrivals.send(Event.of("Kittiwake"));
    arrivals.end();

    assertEquals("data: Kittiwake\n\n", following.join().body());
    // end
  }

  @Test
  void files(Cachette net, @TempDir Path folder) throws Exception {
    String chart = Files.writeString(folder.resolve("bay.txt"), "the bay").toString();
    String upload = folder.resolve("upload.txt").toString();
    // snippet files
    net.stub("GET https://charts.example/bay").answer(file(chart).streamed());
    net.stub("PUT https://charts.example/bay").saveBodyTo(upload).answer(status(201));
    // end

    assertEquals("the bay", Http.call("GET", "https://charts.example/bay").body());
    assertEquals(201, Http.call("PUT", "https://charts.example/bay", "new").statusCode());
    assertEquals("new", Files.readString(Path.of(upload)));
    net.stub("GET /unused").answer(text(""));
  }
}
