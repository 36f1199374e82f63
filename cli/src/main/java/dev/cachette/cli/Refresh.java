// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.real.RealAddress;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.wire.Engine;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
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
      "Send the requests of a cassette to the real services again, and show the drift.",
      "The cassette is unchanged, unless --write is given."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette refresh tides.har --secret TIDES_KEY= --fail-on shape")
final class Refresh implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;
  @Mixin private TrustedCa trusted;

  @Parameters(paramLabel = "FILE", description = "The cassette.")
  private Path file;

  @Option(names = "--write", description = "Write the new responses to the cassette.")
  private boolean write;

  @Option(
      names = "--fail-on",
      paramLabel = "WHAT",
      description = "Exit with 1 for changes in shape (shape), or for any change (any).")
  private Compare.@Nullable FailOn failOn;

  @Option(
      names = "--at",
      paramLabel = "ORIGIN=ADDRESS",
      converter = {OriginReader.class, OriginReader.class},
      description =
          "The address of a service, if it differs from its name:"
              + " https://tides.example=http://127.0.0.1:8085. Can be repeated.")
  private Map<String, String> addresses = Map.of();

  @Override
  public Integer call() {
    CassetteSettings settings = CassetteSettings.defaults().redaction(any -> rules.redaction());
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output)) {
      LoadedCassette again =
          new LoadedCassette(
              file.toString(), settings, RecordingMode.REWRITE, cassette.recordings());
      send(cassette.exchanges(), again);
      List<Exchange> answered = again.finished();
      Instant now = Instant.now();
      Drift drift =
          cassette
              .cassette()
              .compareWith(
                  new CassetteContent(file.toString(), Optional.of(now), answered),
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

  private void send(List<Exchange> exchanges, LoadedCassette again) {
    try (Engine engine = new Engine()) {
      RealCalls services = new RealCalls(engine, realAddresses(), trusted.certificates());
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
                  "%s cannot be reached: %s. The cassette is unchanged.",
                  request.uri().origin(), failed.getMessage()));
        }
      }
    }
  }

  private Map<String, RealAddress> realAddresses() {
    return addresses.entrySet().stream()
        .collect(Collectors.toMap(Map.Entry::getKey, it -> RealAddress.of(it.getValue())));
  }

  private static void requireFilled(int number, Request request) {
    String text = request.uri() + "\n" + ExchangeText.of(request);
    CassettePlaceholders.in(text).stream()
        .findFirst()
        .ifPresent(
            name -> {
              throw new Failure(
                  String.format(
                      "exchange %d needs the secret %s, which is not in the cassette. Fix: "
                          + "--secret %s=",
                      number, name, name));
            });
  }
}
