// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.status;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.engine.ConnectionInfo;
import dev.cachette.internal.engine.HostServices;
import dev.cachette.internal.engine.PendingCall;
import dev.cachette.internal.engine.Responder;
import dev.cachette.internal.engine.ScopeSettings;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.match.RequestPattern;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Choosing the stub for one request among many, without the wire. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 10, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class StubChoice {

  /** The number of stubs. */
  @Param({"10", "100", "1000", "10000"})
  int stubs;

  /** How they differ. */
  @Param({"method", "host", "path", "template"})
  String differing;

  /**
   * The number of stubs that are called in turn. A test calls a few dozen; if all are called, the
   * cost is mostly that of CPU cache misses.
   */
  @Param({"64", "10000"})
  int called;

  private Responder responder;
  private int next;

  /** Declares the stubs. */
  @Setup
  public void declare() {
    Scopes scopes = new Scopes(new ScopeSettings(Clock.systemUTC(), 0, 1, 1));
    Place place = new Place(new StackTraceElement("StubChoice", "declare", "StubChoice.java", 1));
    for (int at = 0; at < stubs; at++) {
      DraftStub draft = new DraftStub(RequestPattern.of(line(at)), place);
      scopes.begin(draft);
      scopes.finish(
          draft, new StubRule(draft.answeredBy(List.of(status(204))), Optional.empty(), false, 0));
    }
    responder =
        new Responder(
            scopes,
            new HostServices(
                Json::mapper,
                source -> Body.empty(),
                (request, protocol) -> {
                  throw new IllegalStateException("no call here is for real");
                },
                unexpected -> {},
                orphaned -> {}));
  }

  /** Chooses the stub of one request, another one each time. */
  @Benchmark
  public PendingCall choose() {
    int distinct = Math.min(called, stubs);
    next = (next + 7) % distinct;
    return responder
        .receive(request(next * (stubs / distinct)), ConnectionInfo.ANY)
        .decideQuickly()
        .orElseThrow();
  }

  private String line(int at) {
    return switch (differing) {
      case "method" -> "M" + at + " https://tides.example/v1/tides";
      case "host" -> "GET https://h" + at + ".example/v1/tides";
      case "path" -> "GET https://tides.example/v1/stations/" + at + "/tides";
      default -> "GET https://tides.example/v1/" + at + "/{station}/tides";
    };
  }

  private Request request(int at) {
    String method = differing.equals("method") ? "M" + at : "GET";
    String host = differing.equals("host") ? "h" + at + ".example" : "tides.example";
    String path =
        switch (differing) {
          case "path" -> "/v1/stations/" + at + "/tides";
          case "template" -> "/v1/" + at + "/marrow/tides";
          default -> "/v1/tides";
        };
    return new Request(method, Uri.at("https", host, 443, path), Headers.none(), Body.empty());
  }
}
