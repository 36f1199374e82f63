// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.cassette.FailedConnection;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/** Converts the stubs of a file that are for exactly one request to a cassette. */
public final class StubFileConversion {

  /** Faults after the request that a cassette replays as they are. */
  private static final Set<Fault.Kind> LATE =
      EnumSet.of(Fault.Kind.CONNECTION_RESET, Fault.Kind.CONNECTION_CLOSED, Fault.Kind.NO_RESPONSE);

  private final Consumer<String> remark;
  private final List<Exchange> exchanges = new ArrayList<>();

  private StubFileConversion(Consumer<String> remark) {
    this.remark = remark;
  }

  /**
   * Writes the cassette; returns its number of exchanges.
   *
   * @param stubs the stub file
   * @param target the cassette; if there is one, its exchanges for other requests are replaced, too
   * @param remark is told of what a cassette cannot express
   * @throws ToolingException if no stub is for exactly one request, or if a file that an answer
   *     names cannot be read
   * @throws dev.cachette.stubfile.StubFileException if the stub file has problems
   */
  public static int toCassette(Path stubs, Path target, Consumer<String> remark) {
    StubFileConversion cassette = new StubFileConversion(remark);
    StubFileContent.of(stubs).forEach(cassette::add);
    if (cassette.exchanges.isEmpty()) {
      throw new ToolingException("no stub in " + stubs + " is for exactly one request.");
    }
    try (CassetteFile file = new CassetteFile(target)) {
      RecordedExchanges before = file.open();
      file.save(
          new Merge(before, cassette.exchanges, true, Varying.none()),
          Instant.now(),
          ToolVersion.number());
    }
    return cassette.exchanges.size();
  }

  private void add(StubFileContent.Declared stub) {
    ExampleRequest.Found example;
    try {
      example = ExampleRequest.of(stub);
    } catch (ExampleRequest.Many many) {
      remark.accept("skipped, because " + many.getMessage() + ": " + stub.reference());
      return;
    }
    int before = exchanges.size();
    for (Answer answer : stub.answers()) {
      for (Answer one : AnswerInternals.expanded(answer)) {
        add(stub, example.request(), one);
      }
    }
    List<String> lost = new ArrayList<>(example.ignored());
    stub.behavior().forEach(key -> lost.add("\"" + key + "\""));
    if (exchanges.size() > before && !lost.isEmpty()) {
      remark.accept(
          "not kept, because a cassette cannot express it: "
              + String.join(", ", lost)
              + ", in "
              + stub.reference());
    }
  }

  private void add(StubFileContent.Declared stub, Request request, Answer answer) {
    Instant started = Instant.EPOCH.plusSeconds(exchanges.size());
    if (answer instanceof ResponseAnswer plain && !AnswerInternals.delivery(plain).template()) {
      exchanges.add(
          Exchange.answered(
              started, Duration.ZERO, "HTTP/1.1", request, read(stub, plain).response()));
      if (AnswerInternals.timing(plain) != Timing.AT_ONCE) {
        remark.accept("not kept: the delay of an answer, in " + stub.reference());
      }
    } else if (answer instanceof Fault fault && fault.kind().stage().isEarly()) {
      exchanges.add(
          FailedConnection.of(
              started, Duration.ZERO, request.uri().host(), request.uri().port(), fault.kind()));
    } else if (answer instanceof Fault fault && LATE.contains(fault.kind())) {
      exchanges.add(Exchange.failed(started, Duration.ZERO, request, fault.kind()));
    } else {
      remark.accept(
          "skipped, because a cassette cannot express it: "
              + (answer instanceof ResponseAnswer ? "a template" : answer)
              + ", in "
              + stub.reference());
    }
  }

  /** Returns the answer with the content of the file that it names. */
  private static ResponseAnswer read(StubFileContent.Declared stub, ResponseAnswer answer) {
    Optional<Delivery.Source> source = AnswerInternals.delivery(answer).source();
    if (source.isEmpty()) {
      return answer;
    }
    if (source.get().onClassPath()) {
      throw new ToolingException(
          stub.reference() + " answers with a file on the classpath, which is not known here.");
    }
    try {
      return AnswerInternals.read(
          answer, Body.of(Files.readAllBytes(Path.of(source.get().name()))));
    } catch (IOException unreadable) {
      throw new ToolingException("cannot read the file " + source.get().name() + ".");
    }
  }
}
