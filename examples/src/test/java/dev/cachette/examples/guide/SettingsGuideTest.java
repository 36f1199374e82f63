// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.junit.InterceptHttp;
import java.util.function.Supplier;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** The snippets of docs/guide/settings.md; GuideTest compares them with the page. */
class SettingsGuideTest {

  private static final String TIDES = "https://tides.example/v1/tides";

  @Nested
  // snippet field
  @InterceptHttp
  class TidesTest {

    static final Settings SETTINGS = Settings.defaults().seed(7).unusedStubs(UnusedStubs.FAIL);

    @Test
    void readsTheTides(Cachette net) {
      net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));

      assertEquals("04:10", Http.call("GET", TIDES).body());
    }
  }

  // end

  @Nested
  // snippet supplier
  @InterceptHttp(settings = HarbourSettings.class)
  // end
  class FromSupplier {

    @Test
    void anUnexpectedCallIsAWarning() {
      assertEquals(501, Http.call("GET", TIDES).statusCode());
    }
  }

  // snippet supplies
  public static final class HarbourSettings implements Supplier<Settings> {

    @Override
    public Settings get() {
      return Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN);
    }
  }
  // end
}
