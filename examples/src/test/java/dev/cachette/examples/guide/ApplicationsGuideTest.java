// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.ForwardProxy;
import dev.cachette.Settings;
import dev.cachette.junit.CachetteExtension;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** The snippets of docs/guide/applications.md; GuideTest compares them with the page. */
class ApplicationsGuideTest {

  // snippet each-its-own
  @RegisterExtension
  static final CachetteExtension CACHETTE =
      CachetteExtension.with(Settings.defaults().withoutInterception());

  @RepeatedTest(4)
  void readsTheTides(Cachette net) {
    net.stub("GET https://tides.example/v1/tides").answer(json("{\"high\":\"04:10\"}"));
    String tides = net.baseUrlFor("https://tides.example");

    assertEquals("{\"high\":\"04:10\"}", Http.call("GET", tides + "/v1/tides").body());
    net.calls("GET https://tides.example/v1/tides").assertCount(1);
  }

  // end

  @Test
  void otherPrograms(Cachette net) {
    // snippet other-programs
    String any = net.baseUrl(); // http://127.0.0.1:41234
    String tides = net.baseUrlFor("https://tides.example"); // stands for that origin
    ForwardProxy proxy = net.proxy(); // for every host
    String pem = proxy.authorityPem(); // what the program has to trust
    // end

    assertTrue(any.startsWith("http://127.0.0.1:"));
    assertTrue(tides.startsWith("http://127.0.0.1:"));
    assertTrue(pem.startsWith("-----BEGIN CERTIFICATE-----"));
  }

  @Test
  void property() {
    // snippet property
    Settings settings =
        Settings.defaults()
            .withoutInterception()
            .baseUrlInProperty("tides.url", "https://tides.example");
    // end
    try (Cachette other = Cachette.open(settings)) {
      assertEquals(other.baseUrlFor("https://tides.example"), System.getProperty("tides.url"));
    }
  }
}
