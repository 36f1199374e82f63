// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import static dev.cachette.answer.Answers.json;

import dev.cachette.Cachette;
import java.io.IOException;

/** A JVM until its first intercepted HTTPS answer. */
public final class Intercepted {

  private Intercepted() {}

  /** Opens, stubs, calls, closes. */
  public static void main(String[] arguments) throws IOException {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1/tides").answer(json("{\"high\":[\"04:10\"]}"));
      FirstCall.get("https://tides.example/v1/tides");
    }
  }
}
