// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.FileSystem;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The differences of Windows and macOS, as far as it can be simulated: paths, permissions, lines.
 */
class OtherSystemsTest {

  private static final String TIDES = "https://tides.example/v1/today";

  /** A system, by the rules of its file systems. */
  enum System {
    WINDOWS(Configuration.windows(), "C:\\harbour\\cassettes"),
    MAC_OS(Configuration.osX(), "/Users/mara/Marrow Bay/cassettes"),
    LINUX(Configuration.unix(), "/home/mara/cassettes");

    private final Configuration configuration;
    private final String folder;

    System(Configuration configuration, String folder) {
      this.configuration = configuration;
      this.folder = folder;
    }

    FileSystem files() {
      return Jimfs.newFileSystem(configuration);
    }
  }

  @ParameterizedTest
  @EnumSource
  void cassettesAreRecordedAndReplayed(System system) throws Exception {
    try (FileSystem files = system.files();
        Cachette real = Cachette.open(Settings.defaults().withoutInterception())) {
      real.stub("GET https://tides.example/{+any}").answer(json("{\"high\":\"04:10\"}"));
      Path cassette = files.getPath(system.folder).resolve("tides").resolve("today.har");
      Settings settings =
          Settings.defaults()
              .realServiceAt("https://tides.example", real.baseUrlFor("https://tides.example"));
      // New, replaced, and extended.
      for (RecordingMode mode :
          List.of(RecordingMode.REWRITE, RecordingMode.REWRITE, RecordingMode.REPLAY)) {
        try (Cachette net = Cachette.open(settings)) {
          net.cassette(cassette, CassetteSettings.defaults().mode(mode));
          assertEquals("{\"high\":\"04:10\"}", call(TIDES));
        }
      }
      CassetteContent content = CassetteFiles.read(cassette);
      assertEquals(1, content.exchanges().size());
      assertFalse(Files.readString(cassette).contains("\r"), "the same lines on each system");
      try (Stream<Path> beside = Files.list(cassette.getParent())) {
        assertEquals(List.of("today.har"), beside.map(it -> it.getFileName().toString()).toList());
      }
    }
  }

  @ParameterizedTest
  @EnumSource
  void theAuthorityIsKept(System system) throws Exception {
    try (FileSystem files = system.files()) {
      Path file = files.getPath(system.folder).resolve("authority.pem");
      String first;
      try (Cachette net = Cachette.open(Settings.defaults().certificateAuthority(file))) {
        first = net.proxy().authorityPem();
      }
      try (Cachette net = Cachette.open(Settings.defaults().certificateAuthority(file))) {
        assertEquals(first, net.proxy().authorityPem());
      }
    }
  }

  /** An editor on Windows has written it. */
  @ParameterizedTest
  @ValueSource(strings = {"\n", "\r\n", "\r"})
  void stubFilesHaveAnyLineEndings(String line) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.declare(
          String.join(
              line,
              "stubs:",
              "  - request: GET " + TIDES,
              "    answer:",
              "      json: { high: \"04:10\" }",
              ""));
      assertEquals("{\"high\":\"04:10\"}", call(TIDES));
    }
  }

  private static String call(String url) throws IOException, InterruptedException {
    return HttpClient.newHttpClient()
        .send(HttpRequest.newBuilder(URI.create(url)).build(), BodyHandlers.ofString())
        .body();
  }
}
