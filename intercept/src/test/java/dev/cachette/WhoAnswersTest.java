// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Who answers a call that several could answer: the first in this order, in each combination. */
class WhoAnswersTest {

  private static final String DESCRIPTION =
      """
      {"openapi": "3.1.0", "paths": {"/v1": {"get": {"responses": {"200":
        {"content": {"application/json": {"example": "EXAMPLE"}}}}}}}}
      """;

  private static final String CASSETTE =
      """
      {"log": {"version": "1.2", "entries": [{
        "startedDateTime": "2031-04-02T12:00:00Z", "time": 1,
        "request": {"method": "GET", "url": "%s", "headers": []},
        "response": {"status": 200, "headers": [{"name": "content-type", "value": "text/plain"}],
          "content": {"mimeType": "text/plain", "text": "\\"CASSETTE\\""}}}]}}
      """;

  @TempDir Path folder;

  private enum Source {
    STUB,
    EXAMPLE,
    REAL_SERVICE,
    CASSETTE
  }

  static Stream<Set<Source>> combinations() {
    Source[] all = Source.values();
    return IntStream.range(0, 1 << all.length)
        .mapToObj(
            bits -> {
              Set<Source> some = EnumSet.noneOf(Source.class);
              IntStream.range(0, all.length)
                  .filter(at -> (bits & 1 << at) != 0)
                  .forEach(at -> some.add(all[at]));
              return some;
            });
  }

  @ParameterizedTest
  @MethodSource("combinations")
  void theFirstInOrderAnswers(Set<Source> sources) throws Exception {
    Settings settings =
        Settings.defaults()
            .stubFolder(folder)
            .cassetteFolder(folder)
            .unexpectedCalls(UnexpectedCalls.WARN)
            .unusedStubs(UnusedStubs.IGNORE);
    try (RealService real = new RealService("\"REAL_SERVICE\"");
        Cachette net = Cachette.open(settings)) {
      String url = real.url();
      for (Source each : sources) {
        add(net, each, url);
      }
      // Something for the host, so that it is intercepted whatever there is.
      net.stub("GET " + url + "/other").answer(json("{}"));

      HttpResponse<String> answer = Calling.get(url);

      if (sources.isEmpty()) {
        assertEquals(501, answer.statusCode());
      } else {
        String first = sources.iterator().next().name();
        assertEquals('"' + first + '"', answer.body());
        assertEquals(first.equals("REAL_SERVICE") ? 1 : 0, real.calls());
      }
    }
  }

  private void add(Cachette net, Source source, String url) throws Exception {
    switch (source) {
      case STUB -> net.stub("GET " + url).answer(json("\"STUB\""));
      case EXAMPLE -> {
        Files.writeString(folder.resolve("moorings.json"), DESCRIPTION);
        String origin = url.substring(0, url.lastIndexOf('/'));
        net.describedBy(origin, "moorings.json").answeringFromExamples();
      }
      case REAL_SERVICE -> net.letThrough("GET " + url);
      default -> {
        Files.writeString(folder.resolve("moorings.har"), String.format(CASSETTE, url));
        net.cassette("moorings", CassetteSettings.defaults().mode(RecordingMode.REPLAY));
      }
    }
  }
}
