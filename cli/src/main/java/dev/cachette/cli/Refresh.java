package dev.cachette.cli;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Recording;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.InPlay;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.stub.RealServiceFailed;
import dev.cachette.internal.wire.Engine;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette refresh}. */
@Command(
    name = "refresh",
    mixinStandardHelpOptions = true,
    description = {
      "Sends the requests of a cassette to the real services again, and shows what has changed.",
      "The cassette stays as it is, unless --write is given."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette refresh tides.har --secret TIDES_KEY= --fail-on shape")
final class Refresh implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;

  @Parameters(paramLabel = "FILE", description = "The cassette.")
  private Path file;

  @Option(names = "--write", description = "Keep what is answered now.")
  private boolean write;

  @Option(
      names = "--fail-on",
      paramLabel = "WHAT",
      description = "End with 1 if more than values has changed (shape), or anything (any).")
  private Compare.@Nullable FailOn failOn;

  @Option(
      names = "--at",
      paramLabel = "ORIGIN=ADDRESS",
      converter = {OriginReader.class, OriginReader.class},
      description =
          "Where a service is, if not where its name says: "
              + "https://tides.example=http://127.0.0.1:8085. Can be repeated.")
  private Map<String, String> addresses = Map.of();

  @Override
  public Integer call() {
    CassetteSettings settings = CassetteSettings.defaults().redaction(any -> rules.redaction());
    try (CassetteOnDisk cassette = new CassetteOnDisk(file)) {
      InPlay again =
          new InPlay(file.toString(), settings, Recording.REWRITE, cassette.recordings());
      send(cassette.exchanges(), again);
      List<Exchange> answered = again.finished();
      Instant now = Instant.now();
      Drift drift =
          cassette
              .cassette()
              .compareWith(
                  new Cassette(file.toString(), Optional.of(now), answered),
                  cassette.ignoringVarying(Matching.byDefault()));
      if (output.isJson()) {
        output.json(drift.exchanges());
      } else {
        output.result(drift.toString());
      }
      if (write) {
        Varying varying = Varying.of(cassette.recordings());
        cassette
            .file()
            .save(
                new Merge(cassette.recordings(), answered, true, varying),
                now,
                new Tool.Version().number());
        output.remark("written to " + file);
      }
      return Compare.isFailure(drift, failOn) ? Tool.DOES_NOT_HOLD : 0;
    }
  }

  private void send(List<Exchange> exchanges, InPlay again) {
    try (Engine engine = new Engine()) {
      RealCalls services = new RealCalls(engine, addresses);
      int number = 0;
      for (Exchange exchange : exchanges) {
        number++;
        Request request = again.filled(exchange.request());
        requireFilled(number, request);
        output.remark(String.format("%d of %d  %s", number, exchanges.size(), exchange.request()));
        try {
          again.keep(services.call(request, exchange.protocol()));
        } catch (RealServiceFailed failed) {
          throw new Failure(
              String.format(
                  "%s cannot be reached: %s. The cassette is as it was.",
                  request.uri().origin(), failed.getCause().getMessage()));
        }
      }
    }
  }

  private static void requireFilled(int number, Request request) {
    String text = request.uri() + "\n" + ExchangeText.of(request);
    Markers.in(text).stream()
        .findFirst()
        .ifPresent(
            name -> {
              throw new Failure(
                  String.format(
                      "exchange %d needs the secret %s, which is not in the cassette. Mend: "
                          + "--secret %s=",
                      number, name, name));
            });
  }
}
