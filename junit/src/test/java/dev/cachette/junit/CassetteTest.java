// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpServer;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CassetteTest {

  private static final String TIDES = "http://tides.example/v1";
  private static final AtomicInteger CALLS = new AtomicInteger();
  private static Path folder;
  private static HttpServer service;

  @BeforeEach
  void start(@TempDir Path cassettes) throws IOException {
    folder = cassettes;
    CALLS.set(0);
    service = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    service.createContext(
        "/",
        exchange -> {
          CALLS.incrementAndGet();
          exchange.sendResponseHeaders(204, -1);
          exchange.close();
        });
    service.start();
  }

  @AfterEach
  void stop() {
    service.stop(0);
  }

  /** With the folder and the service of the test that runs them. */
  abstract static class Recorded {

    @RegisterExtension final CachetteExtension extension = CachetteExtension.with(settings());

    static Settings settings() {
      return Settings.defaults()
          .cassetteFolder(folder)
          .cassettes(CassetteSettings.defaults().recordingInCi())
          .realServiceAt(
              "http://tides.example", "http://127.0.0.1:" + service.getAddress().getPort());
    }
  }

  @Test
  void eachTestHasACassetteThatIsNamedAfterIt() throws IOException {
    assertEquals(List.of(), Engine.failures(Engine.run(Unnamed.class)));
    assertEquals(5, CALLS.get());
    String prefix = Unnamed.class.getName().replace('$', '/') + "/";
    assertEquals(
        List.of(
            prefix + "Later/asks.har",
            prefix + "asks.har",
            prefix + "asksOften_int-1.har",
            prefix + "asksOften_int-2.har",
            "own/given.har"),
        files());

    stop();
    assertEquals(List.of(), Engine.failures(Engine.run(Unnamed.class)));
    assertEquals(5, CALLS.get());
  }

  @Cassette
  static class Unnamed extends Recorded {

    @Test
    void asks() {
      assertEquals(204, Url.status(TIDES));
    }

    @Test
    @Cassette("own/given")
    void given() {
      assertEquals(204, Url.status(TIDES + "/given"));
    }

    @ParameterizedTest
    @ValueSource(ints = {7, 8})
    void asksOften(int number) {
      assertEquals(204, Url.status(TIDES + "/" + number));
    }

    @SuppressWarnings("unused")
    void asksOften() {}

    @Nested
    class Later {
      @Test
      void asks() {
        assertEquals(204, Url.status(TIDES + "/later"));
      }
    }
  }

  @Test
  void aNamedOneIsForAllTestsOfItsClass() throws IOException {
    assertEquals(List.of(), Engine.failures(Engine.run(Named.class)));
    assertEquals(List.of("harbour.har"), files());
    assertEquals(3, CALLS.get());

    stop();
    assertEquals(List.of(), Engine.failures(Engine.run(Named.class)));
    assertEquals(3, CALLS.get());
  }

  @Cassette(value = "harbour", hosts = "tides.example")
  static class Named {

    /** Made when the class is loaded, which one test alone does. */
    @RegisterExtension
    static final CachetteExtension EXTENSION = CachetteExtension.with(Recorded.settings());

    @BeforeAll
    static void asksFirst() {
      assertEquals(204, Url.status(TIDES));
    }

    @Test
    void one() {
      assertEquals(204, Url.status(TIDES + "/1"));
    }

    @Test
    void other() {
      assertEquals(204, Url.status(TIDES + "/2"));
    }
  }

  @Test
  void aTestThatFailsKeepsNothing() throws IOException {
    assertEquals(1, Engine.failures(Engine.run(Failing.class)).size());
    assertEquals(List.of(), files());
    assertEquals(1, CALLS.get());
  }

  @Cassette
  static class Failing extends Recorded {
    @Test
    void asks() {
      assertEquals(200, Url.status(TIDES));
    }
  }

  @Test
  void aMissingCassetteFailsTheTestAndExplainsHowToRecordIt() {
    List<String> failures = Engine.failures(Engine.run(Missing.class));
    assertEquals(1, failures.size());
    assertTrue(failures.get(0).contains("-Dcachette.recording=CREATE"), failures.get(0));
  }

  static class Missing extends Recorded {
    @Test
    @Cassette(value = "harbour/arrival", mode = RecordingMode.REPLAY)
    void asks() {
      throw new AssertionError("not reached");
    }
  }

  @Test
  void withoutInterceptionItIsExplained() {
    List<String> failures = Engine.failures(Engine.run(Alone.class));
    assertEquals(1, failures.size());
    assertTrue(failures.get(0).contains("annotate the class with @InterceptHttp"), failures.get(0));
  }

  static class Alone {
    @Test
    @Cassette
    void asks() {
      throw new AssertionError("not reached");
    }
  }

  private static List<String> files() throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(Files::isRegularFile)
          .map(file -> folder.relativize(file).toString().replace('\\', '/'))
          .sorted()
          .toList();
    }
  }
}
