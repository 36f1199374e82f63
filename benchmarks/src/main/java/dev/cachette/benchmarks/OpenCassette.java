// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
 * Opening a cassette until it can answer, compared with Jackson's own pass over the same file; and
 * one answer from it.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(2)
public class OpenCassette {

  private static final JsonFactory JACKSON = new JsonFactory();

  /** The number of exchanges. */
  @Param({"1000", "100000"})
  int exchanges;

  private Path file;
  private CassetteFile opened;
  private LoadedCassette inPlay;
  private int turn;

  /** Writes the file. */
  @Setup(Level.Trial)
  public void write() throws IOException {
    file = Files.createTempDirectory("cachette").resolve("harbour.har");
    List<Exchange> all = new ArrayList<>();
    for (int at = 0; at < exchanges; at++) {
      all.add(
          Exchange.answered(
              Instant.EPOCH,
              Duration.ofMillis(12),
              "HTTP/1.1",
              request(at),
              new Response(
                  200,
                  Headers.none().with("content-type", "application/json"),
                  Body.of("{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}"))));
    }
    try (CassetteFile empty = new CassetteFile(file)) {
      empty.save(new Merge(empty.open(), all, false, Varying.none()), Instant.EPOCH, "benchmark");
    }
    opened = new CassetteFile(file);
    inPlay = inPlay(opened);
  }

  /** Deletes it. */
  @TearDown(Level.Trial)
  public void delete() throws IOException {
    opened.close();
    Files.delete(file);
  }

  /** Reads every token with Jackson. */
  @Benchmark
  public int jackson() throws IOException {
    int tokens = 0;
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16);
        JsonParser parser = JACKSON.createParser(in)) {
      while (parser.nextToken() != null) {
        tokens++;
      }
    }
    return tokens;
  }

  /** Returns the cassette, ready to answer. */
  @Benchmark
  public LoadedCassette open() {
    try (CassetteFile cassette = new CassetteFile(file)) {
      return inPlay(cassette);
    }
  }

  /** Answers from another exchange each time. */
  @Benchmark
  public Optional<LoadedCassette.Replayed> answer() {
    turn = (turn + 7919) % exchanges;
    return inPlay.replay(request(turn));
  }

  private static LoadedCassette inPlay(CassetteFile cassette) {
    return new LoadedCassette(
        "harbour", CassetteSettings.defaults(), RecordingMode.REPLAY, cassette.open());
  }

  private static Request request(int number) {
    return new Request(
        "GET",
        Uri.parse("https://tides.example/v1/stations/" + number + "/tides?day=2031-04-02"),
        Headers.none(),
        Body.empty());
  }
}
