// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** The cost of one more test: its scope, a stub, and the end. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class OneTest {

  private Cachette net;

  /** Opens once, as a class does. */
  @Setup(Level.Trial)
  public void open() {
    net = Cachette.open();
  }

  /** Closes. */
  @TearDown(Level.Trial)
  public void close() {
    net.close();
  }

  /** Runs a test without calls. */
  @Benchmark
  public Stub scopeStubEnd() {
    try (Cachette.Scope test = net.scope()) {
      return net.stub("GET https://tides.example/v1/stations/{station}/tides")
          .answer(json("{\"high\":[\"04:10\"]}"));
    }
  }
}
