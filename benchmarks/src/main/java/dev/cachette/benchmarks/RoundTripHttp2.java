// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.TimeUnit;
import okhttp3.OkHttpClient;
import okhttp3.Protocol;
import okhttp3.Request;
import okhttp3.Response;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The round trip of a small JSON GET over HTTP/2 in clear text, with OkHttp: through Cachette, and
 * to the bare engine.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 8, time = 1)
@Measurement(iterations = 6, time = 1)
@Fork(3)
public class RoundTripHttp2 {

  private static final byte[] TIDES =
      "{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}"
          .getBytes(StandardCharsets.UTF_8);

  private static final String PATH = "/v1/stations/marrow/tides";
  private static final int CALLS_OF_A_TEST = 1000;

  /** The server. */
  @Param({"engine", "cachette"})
  String server;

  private final OkHttpClient client =
      new OkHttpClient.Builder().protocols(List.of(Protocol.H2_PRIOR_KNOWLEDGE)).build();

  private AutoCloseable running;
  private Request request;
  private int calls;

  /** Starts the server. */
  @Setup(Level.Trial)
  public void start() {
    String url;
    if (server.equals("engine")) {
      BareEngine engine = new BareEngine(TIDES, true);
      running = engine;
      url = engine.url(PATH);
    } else {
      Cachette net = Cachette.open();
      stub(net);
      running = net;
      url = "http://tides.example" + PATH;
    }
    request = new Request.Builder().url(url).build();
  }

  /** Stops the server. */
  @TearDown(Level.Trial)
  public void stop() throws Exception {
    client.dispatcher().executorService().shutdown();
    client.connectionPool().evictAll();
    running.close();
  }

  /** Makes one call; Cachette's log is emptied as often as tests would end. */
  @Benchmark
  public int get() throws IOException {
    if (running instanceof Cachette net && ++calls % CALLS_OF_A_TEST == 0) {
      net.reset();
      stub(net);
    }
    try (Response response = client.newCall(request).execute()) {
      return response.body().bytes().length;
    }
  }

  private static void stub(Cachette net) {
    net.stub("GET http://tides.example/v1/stations/{station}/tides")
        .answer(json(new String(TIDES, StandardCharsets.UTF_8)));
  }
}
