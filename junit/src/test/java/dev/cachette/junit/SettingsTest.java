// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static dev.cachette.Factories.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where the settings of a test come from, and how contradictions are refused. */
class SettingsTest {

  private static final String TIDES = "https://tides.example/v1";

  @Test
  void theyComeFromASupplierAFieldOrAnExtension() {
    assertEquals(
        List.of(),
        Engine.failures(
            Engine.run(FromSupplier.class, FromField.class, Beside.class, NestedInField.class)));
  }

  @Test
  void theyComeFromConfigurationParameters() {
    assertEquals(
        List.of(), Engine.failures(Engine.run(Map.of("cachette.seed", "12"), SeedTwelve.class)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "cachette.unusedStubs | SOMETIMES | Allowed: WARN, FAIL, IGNORE.",
        "cachette.maxRequestBody | 4 PB | Allowed: a number of bytes",
        "cachette.seed | seven | Allowed: a whole number.",
        "cachette.interception | yes | Allowed: true, false.",
        "cachette.servingThreads | 0 | Allowed: a positive number."
      })
  void anInvalidPropertyIsRefusedWithItsNameAndValue(String name, String value, String said) {
    List<String> failures = Engine.failures(Engine.run(Map.of(name, value), SeedTwelve.class));

    assertTrue(failures.get(0).contains(name + " is \"" + value + "\""), failures::toString);
    assertTrue(failures.get(0).contains(said), failures::toString);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "SupplierAndField | has several settings: @InterceptHttp(settings = Ignoring), the field S",
        "TwoFields | has several settings: the field FIRST, the field SECOND",
        "InstanceBeside | Fix: make the field static, or remove the annotation.",
        "TwoExtensions | has several fields of CachetteExtension: one, other",
        "NestedSettings | have no effect, because interception begins with"
      })
  void contradictionsAreRefusedInOneSentence(String test, String said) throws Exception {
    Class<?> type = Class.forName(SettingsTest.class.getName() + "$" + test);

    List<String> failures = Engine.failures(Engine.run(type));

    assertTrue(!failures.isEmpty() && failures.get(0).contains(said), failures::toString);
  }

  /** Ignores unused stubs, and lets unexpected calls be. */
  public static final class Ignoring implements Supplier<Settings> {

    @Override
    public Settings get() {
      return Settings.defaults()
          .unexpectedCalls(UnexpectedCalls.WARN)
          .unusedStubs(UnusedStubs.IGNORE);
    }
  }

  @InterceptHttp(settings = Ignoring.class)
  static class FromSupplier {

    @Test
    void anUnexpectedCallIsNotAFailure() throws Exception {
      assertEquals(501, Url.status(TIDES));
    }
  }

  @InterceptHttp
  static class FromField {

    static final Settings HARBOUR = new Ignoring().get();

    @Test
    void anUnexpectedCallIsNotAFailure() throws Exception {
      assertEquals(501, Url.status(TIDES));
    }
  }

  static class NestedInField {

    static final Settings HARBOUR = new Ignoring().get();

    @Nested
    @InterceptHttp
    class Desk {

      @Test
      void anUnexpectedCallIsNotAFailure() throws Exception {
        assertEquals(501, Url.status(TIDES));
      }
    }
  }

  @InterceptHttp
  static class Beside {

    @RegisterExtension
    static final CachetteExtension CACHETTE = CachetteExtension.with(new Ignoring().get());

    @Test
    void annotationAndFieldAreOne(Cachette net) throws Exception {
      net.stub("GET " + TIDES).answer(status(204));
      assertEquals(204, Url.status(TIDES));
      assertEquals(501, Url.status(TIDES + "/none"));
    }
  }

  @InterceptHttp
  static class SeedTwelve {

    @Test
    void isInTheNotes(Cachette net) throws Exception {
      net.stub("GET " + TIDES).answer(status(204)).flaky(1);
      Url.status(TIDES);
      assertTrue(net.notes().get(0).contains("seed(12)"), net.notes()::toString);
    }
  }

  @InterceptHttp(settings = Ignoring.class)
  static class SupplierAndField {

    static final Settings S = Settings.defaults();

    @Test
    void never() {}
  }

  @InterceptHttp
  static class TwoFields {

    static final Settings FIRST = Settings.defaults();
    static final Settings SECOND = Settings.defaults();

    @Test
    void never() {}
  }

  @InterceptHttp
  static class InstanceBeside {

    @RegisterExtension final CachetteExtension each = CachetteExtension.with(Settings.defaults());

    @Test
    void never() {}
  }

  static class TwoExtensions {

    @RegisterExtension
    static final CachetteExtension one = CachetteExtension.with(Settings.defaults());

    @RegisterExtension
    static final CachetteExtension other = CachetteExtension.with(Settings.defaults());

    @Test
    @InterceptHttp
    void never() {}
  }

  @InterceptHttp
  static class NestedSettings {

    @Nested
    @InterceptHttp(settings = Ignoring.class)
    class Desk {

      @Test
      void never() {}
    }
  }
}
