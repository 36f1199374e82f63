// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.util.List;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

class StubsTest {

  private static final String TIDES = "https://tides.example/v1";

  @InterceptHttp
  @Stubs("tides")
  static class OnAClass {

    @Test
    void isTheBaseline() {
      assertEquals(201, Url.status(TIDES));
    }

    @Test
    @Stubs("ebb")
    void aMethodOverridesTheClass() {
      assertEquals(202, Url.status(TIDES));
    }

    @Nested
    @Stubs("ebb")
    class Within {

      @Test
      void anInnerClassAddsItsOwn() {
        assertEquals(202, Url.status(TIDES));
      }
    }
  }

  @Stubs("tides")
  static class EachItsOwn {

    @RegisterExtension
    final CachetteExtension extension =
        CachetteExtension.with(Settings.defaults().withoutInterception());

    @Test
    void hasTheStubsOfItsClass(Cachette net) {
      assertEquals(201, Url.status(net.baseUrlFor("https://tides.example") + "/v1"));
    }
  }

  @InterceptHttp
  @Stubs("tide")
  static class Misspelled {

    @Test
    void isNotRun() {}
  }

  @Stubs("tides")
  static class WithoutExtension {

    @Test
    void isRefused() {}
  }

  @Test
  void filesAreLoadedForClassesAndForTests() {
    assertEquals(List.of(), Engine.failures(Engine.run(OnAClass.class, EachItsOwn.class)));
  }

  @Test
  void aMissingFileAndAMissingExtensionAreErrors() {
    assertTrue(
        Engine.failures(Engine.run(Misspelled.class))
            .get(0)
            .contains("there is no such stub file"));
    assertTrue(
        Engine.failures(Engine.run(WithoutExtension.class)).get(0).contains("@InterceptHttp"));
  }
}
