// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.lang.reflect.Method;
import java.net.URI;
import java.net.URL;
import java.util.Arrays;

/**
 * The cost of finding out who makes a call: the round trip of a small GET with the JDK's URL
 * connection, kept alive, over plain HTTP, with and without it. Both in one JVM, in turn and in
 * small blocks, as the speed of a shared machine changes by more than what is measured.
 */
public final class Callers {

  private static final PrintStream OUT = System.out;
  private static final int BLOCKS = 300;
  private static final int CALLS = 300;
  private static final int WARM_UP = 40;

  private Callers() {}

  /** Needs {@code --add-opens java.base/java.net=ALL-UNNAMED}. */
  public static void main(String[] arguments) throws Exception {
    double[] ratios = new double[BLOCKS];
    long[] followed = new long[BLOCKS];
    long[] unfollowed = new long[BLOCKS];
    try (Cachette net = Cachette.open()) {
      URL url = URI.create("http://tides.example/v1/stations/marrow/tides").toURL();
      for (int block = -WARM_UP; block < BLOCKS; block++) {
        net.reset();
        net.stub("GET http://tides.example/v1/stations/{station}/tides")
            .answer(json("{\"high\":1}"));
        // Each is first in half of the blocks.
        boolean first = block % 2 == 0;
        long one = medianOf(url, first);
        long other = medianOf(url, !first);
        if (block >= 0) {
          followed[block] = first ? one : other;
          unfollowed[block] = first ? other : one;
          ratios[block] = (double) followed[block] / unfollowed[block];
        }
      }
    }
    Arrays.sort(ratios);
    Arrays.sort(followed);
    Arrays.sort(unfollowed);
    OUT.printf(
        "with / without: %.3f (medians %.1f / %.1f us; half of the blocks from %.3f to %.3f)%n",
        ratios[BLOCKS / 2],
        followed[BLOCKS / 2] / 1_000.0,
        unfollowed[BLOCKS / 2] / 1_000.0,
        ratios[BLOCKS / 4],
        ratios[BLOCKS * 3 / 4]);
  }

  private static long medianOf(URL url, boolean following) throws IOException {
    follow(following);
    long[] times = new long[CALLS];
    for (int call = 0; call < CALLS; call++) {
      long begin = System.nanoTime();
      try (InputStream in = url.openConnection().getInputStream()) {
        in.readAllBytes();
      }
      times[call] = System.nanoTime() - begin;
    }
    Arrays.sort(times);
    return times[CALLS / 2];
  }

  /** There is no setting for it, as its cost is small: this measures it. */
  private static void follow(boolean following) {
    try {
      Method follow =
          Class.forName("java.net.CachetteContext").getDeclaredMethod("follow", boolean.class);
      follow.setAccessible(true);
      follow.invoke(null, following);
    } catch (ReflectiveOperationException other) {
      throw new IllegalStateException(other);
    }
  }
}
