// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.json;

import com.sun.net.httpserver.HttpServer;
import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
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
import org.openjdk.jmh.annotations.Warmup;

/**
 * The round trip of a small JSON GET, with the JDK's URL connection, kept alive, over plain HTTP:
 * through Cachette, to the bare engine, and to a hand-written fixture. Compare the medians: they
 * are steadier than the means on a shared machine.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 6, time = 1)
@Measurement(iterations = 6, time = 1)
@Fork(4)
public class RoundTrip {

  private static final byte[] TIDES =
      "{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}"
          .getBytes(StandardCharsets.UTF_8);

  private static final int CALLS_OF_A_TEST = 1000;

  /** The server. */
  @Param({"engine", "cachette", "fixture"})
  String server;

  private AutoCloseable running;
  private URL url;
  private int calls;

  /** Starts the server. */
  @Setup(Level.Trial)
  public void start() throws IOException {
    String path = "/v1/stations/marrow/tides?day=2031-04-02";
    switch (server) {
      case "engine" -> {
        BareEngine engine = new BareEngine(TIDES, false);
        running = engine;
        url = URI.create(engine.url(path)).toURL();
      }
      case "fixture" -> {
        // Without it this server waits 40 ms for each answer, which would flatter us.
        System.setProperty("sun.net.httpserver.nodelay", "true");
        HttpServer fixture = fixture();
        running = () -> fixture.stop(0);
        url = URI.create("http://localhost:" + fixture.getAddress().getPort() + path).toURL();
      }
      case "cachette" -> {
        Cachette net = Cachette.open();
        stub(net);
        running = net;
        url = URI.create("http://tides.example" + path).toURL();
      }
      default -> throw new IllegalArgumentException(server);
    }
  }

  /** Stops the server. */
  @TearDown(Level.Trial)
  public void stop() throws Exception {
    running.close();
  }

  /** Makes one call; Cachette's log is emptied as often as tests would end. */
  @Benchmark
  public int get() throws IOException {
    if (running instanceof Cachette net && ++calls % CALLS_OF_A_TEST == 0) {
      net.reset();
      stub(net);
    }
    try (InputStream in = url.openConnection().getInputStream()) {
      return in.readAllBytes().length;
    }
  }

  private static void stub(Cachette net) {
    net.stub("GET http://tides.example/v1/stations/{station}/tides")
        .answer(json(new String(TIDES, StandardCharsets.UTF_8)));
  }

  private static HttpServer fixture() throws IOException {
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext(
        "/",
        exchange -> {
          exchange.getResponseHeaders().set("content-type", "application/json");
          exchange.sendResponseHeaders(200, TIDES.length);
          exchange.getResponseBody().write(TIDES);
          exchange.close();
        });
    server.start();
    return server;
  }
}
