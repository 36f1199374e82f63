package dev.cachette.cli;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Recordings;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.uri.Percent;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** Makes a cassette of the stubs of a file whose request is one and no pattern. */
final class CassetteOfStubs {

  private CassetteOfStubs() {}

  /** Writes it; answers how many exchanges it has. */
  static int write(Path stubs, Path target, Consumer<String> remark) {
    List<Exchange> exchanges = new ArrayList<>();
    Instant start = Instant.EPOCH;
    for (StubFileContent.Declared stub : StubFileContent.of(stubs)) {
      Optional<Request> request = example(stub);
      if (request.isEmpty()) {
        remark.accept("left out, as it is for many requests: " + stub.name());
        continue;
      }
      for (Answer answer : stub.answers()) {
        if (answer instanceof ResponseAnswer plain && !plain.delivery().template()) {
          exchanges.add(
              Exchange.answered(
                  start.plusSeconds(exchanges.size()),
                  Duration.ZERO,
                  "HTTP/1.1",
                  request.get(),
                  plain.response()));
        } else {
          remark.accept("left out, as it is no plain response: an answer of " + stub.name());
        }
      }
    }
    if (exchanges.isEmpty()) {
      throw new Failure("there is no stub in " + stubs + " that is for one request alone.");
    }
    try (CassetteFile file = new CassetteFile(target)) {
      Recordings before = file.open();
      file.save(
          new Merge(before, exchanges, true, Varying.none()),
          Instant.now(),
          new Tool.Version().number());
    }
    return exchanges.size();
  }

  private static Optional<Request> example(StubFileContent.Declared stub) {
    String[] parts = stub.line().split(" ", 2);
    boolean plain =
        parts.length == 2 && parts[0].matches("[A-Z]+") && parts[1].matches("https?://[^{}*]+");
    if (!plain) {
      return Optional.empty();
    }
    StringBuilder url = new StringBuilder(parts[1]);
    for (Map.Entry<String, String> parameter : stub.query().entrySet()) {
      url.append(url.indexOf("?") < 0 ? '?' : '&')
          .append(Percent.encodeForm(parameter.getKey()))
          .append('=')
          .append(Percent.encodeForm(parameter.getValue()));
    }
    return Optional.of(
        new Request(parts[0], Uri.parse(url.toString()), Headers.none(), Body.empty()));
  }
}
