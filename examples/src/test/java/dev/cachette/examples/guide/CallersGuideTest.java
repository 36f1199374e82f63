// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Guard;
import dev.cachette.calls.Call;
import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;

/** The snippets of docs/guide/callers.md; GuideTest compares them with the page. */
@InterceptHttp
class CallersGuideTest {

  @Test
  void calls(Cachette net) throws Exception {
    net.stub("GET https://tides.example/v1").answer(status(204));
    ExecutorService pool = Executors.newSingleThreadExecutor();
    Future<Integer> status = pool.submit(CallersGuideTest::get);
    assertEquals(204, status.get());
    pool.shutdown();

    // snippet madeBy
    Call call = net.calls().only();

    assertEquals("CallersGuideTest.calls", call.madeBy().test().orElseThrow());
    assertEquals(Evidence.HANDED_OVER, call.madeBy().evidence());
    assertTrue(call.madeBy().thread().orElseThrow().startsWith("pool-"));
    // end
  }

  @Test
  void guard() {
    // snippet guard
    try (Guard guard = Cachette.guard("ledger.example:5432")) {
      // Run the tests.
    }
    // end
  }

  private static int get() throws IOException {
    URI tides = URI.create("https://tides.example/v1");
    return ((HttpURLConnection) tides.toURL().openConnection()).getResponseCode();
  }
}
