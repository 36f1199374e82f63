// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.DynamicTest.dynamicTest;

import dev.cachette.Cachette;
import dev.cachette.junit.InterceptHttp;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The snippets of docs/guide/junit.md; GuideTest compares them with the page. */
// snippet lifecycle
@InterceptHttp
class JunitGuideTest {

  @BeforeAll
  static void harbour(Cachette net) {
    net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));
  }

  @Test
  void readsTheTides(Cachette net) {
    assertEquals("04:10", tides());
    net.calls().assertCount(1);
  }

  @Test
  void survivesAnOutage(Cachette net) {
    net.stub("GET https://tides.example/v1/tides").answer(status(503));
    assertEquals("", tides());
  }

  // end

  // snippet nested
  @Nested
  class AtNight {

    private final Cachette net;

    AtNight(Cachette net) {
      this.net = net;
    }

    @BeforeEach
    void lamp() {
      net.stub("GET https://lamp.example/v1/state").answer(text("lit"));
    }

    @Test
    void theLampIsLit() {
      assertEquals("lit", Http.call("GET", "https://lamp.example/v1/state").body());
      assertEquals("04:10", tides());
    }
  }

  // end

  // snippet parameterized
  @ParameterizedTest
  @ValueSource(ints = {500, 502, 503})
  void survivesErrors(int code, Cachette net) {
    net.stub("GET https://tides.example/v1/tides").answer(status(code));
    assertEquals("", tides());
  }

  @TestFactory
  Stream<DynamicTest> survivesFaults(Cachette net) {
    return Stream.of(connectionReset(), connectionRefused(), unknownHost())
        .map(
            fault ->
                dynamicTest(
                    fault.toString(),
                    () -> {
                      net.stub("GET https://tides.example/v1/tides").answer(fault);
                      assertEquals("", tides());
                    }));
  }

  // end

  private static String tides() {
    try {
      return Http.call("GET", "https://tides.example/v1/tides").body();
    } catch (RuntimeException failed) {
      return "";
    }
  }
}
