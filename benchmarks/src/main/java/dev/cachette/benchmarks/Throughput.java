// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
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
import org.openjdk.jmh.annotations.Threads;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The number of small JSON GETs per second with 32 callers, with the JDK's URL connection over
 * plain HTTP: through Cachette, and to the bare engine. The log holds the last 1,000 calls, like
 * that of a test.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 6, time = 1)
@Measurement(iterations = 6, time = 1)
@Fork(3)
@Threads(32)
public class Throughput {

  private static final String TIDES = "{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}";
  private static final String PATH = "/v1/stations/marrow/tides";

  /** The server. */
  @Param({"engine", "cachette"})
  String server;

  private AutoCloseable running;
  private URL url;

  /** Starts the server. */
  @Setup(Level.Trial)
  public void start() throws IOException {
    // Keep this many connections, or each call would make a new one.
    System.setProperty("http.maxConnections", "64");
    if (server.equals("engine")) {
      BareEngine engine = new BareEngine(TIDES.getBytes(StandardCharsets.UTF_8), false);
      running = engine;
      url = URI.create(engine.url(PATH)).toURL();
    } else {
      Cachette net = Cachette.open(Settings.defaults().maxCalls(1_000));
      net.stub("GET http://tides.example/v1/stations/{station}/tides").answer(json(TIDES));
      running = net;
      url = URI.create("http://tides.example" + PATH).toURL();
    }
  }

  /** Stops the server. */
  @TearDown(Level.Trial)
  public void stop() throws Exception {
    running.close();
  }

  /** Makes one call. */
  @Benchmark
  public int get() throws IOException {
    try (InputStream in = url.openConnection().getInputStream()) {
      return in.readAllBytes().length;
    }
  }
}
