package dev.cachette.cli;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedExchanges;
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

/** Converts the stubs of a file that are for exactly one request to a cassette. */
final class CassetteOfStubs {

  private CassetteOfStubs() {}

  /** Writes it; returns its number of exchanges. */
  static int write(Path stubs, Path target, Consumer<String> remark) {
    List<Exchange> exchanges = new ArrayList<>();
    Instant start = Instant.EPOCH;
    for (StubFileContent.Declared stub : StubFileContent.of(stubs)) {
      Optional<Request> request = example(stub);
      if (request.isEmpty()) {
        remark.accept("skipped, because it matches many requests: " + stub.reference());
        continue;
      }
      for (Answer answer : stub.answers()) {
        if (answer instanceof ResponseAnswer plain && !AnswerInternals.delivery(plain).template()) {
          exchanges.add(
              Exchange.answered(
                  start.plusSeconds(exchanges.size()),
                  Duration.ZERO,
                  "HTTP/1.1",
                  request.get(),
                  plain.response()));
        } else {
          remark.accept(
              "skipped, because it is not a plain response: an answer of " + stub.reference());
        }
      }
    }
    if (exchanges.isEmpty()) {
      throw new Failure("no stub in " + stubs + " is for exactly one request.");
    }
    try (CassetteFile file = new CassetteFile(target)) {
      RecordedExchanges before = file.open();
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
