// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.contract.ContractStore;
import dev.cachette.control.ControlPort;
import dev.cachette.control.Controlled;
import dev.cachette.control.ControlledSessions;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.tooling.FileWatch;
import dev.cachette.verification.CompatibilityText;
import dev.cachette.verification.StoreException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette serve}. */
@Command(
    name = "serve",
    mixinStandardHelpOptions = true,
    description = {
      "Serve stub files, cassettes, and the examples of OpenAPI descriptions as a local HTTP"
          + " server.",
      "It is a plain server, for the hosts of Host headers, and a forward proxy, all on one port,"
          + " with HTTP/1.1, HTTP/2 and HTTPS. Changed files are reloaded; calls are printed, one"
          + " per line."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette serve harbour.stubs.yaml --port 8080 --for https://tides.example",
      "  cachette serve berths.openapi.yaml --port 8080",
      "  cachette serve arrival.har --port 8080 --control 8081",
      "  cachette serve --identity http://localhost:8080 --user mara --port 8080",
      "  curl --proxy http://127.0.0.1:8080 http://tides.example/v1/stations"
    })
final class Serve implements Callable<Integer> {

  /** Whoever looks at the control port, looks back. */
  private static final int MOST_CALLS = 100_000;

  @Mixin private Output output;
  @Mixin private Listening listening;

  @Parameters(
      arity = "0..*",
      paramLabel = "FILE",
      description =
          "Stub files (.yaml, .yml, .json), cassettes (.har), API descriptions (OpenAPI 3.0 to"
              + " 3.2). Calls to a described service are checked against its API description.")
  private List<Path> files = List.of();

  @Option(
      names = "--passthrough",
      description = "Send calls that nothing answers to the real services.")
  private boolean through;

  @Option(
      names = "--cors",
      description =
          "Let web pages of other origins call: answer preflight requests, and add the headers of"
              + " CORS to answers that have none.")
  private boolean cors;

  @Mixin private IdentityOptions identity;
  @Mixin private ControlOptions control;

  @Option(
      names = "--store",
      paramLabel = "STORE",
      description =
          "Show on the page of the control port which versions work together, by this store of"
              + " contracts.")
  private @Nullable String store;

  @Option(names = "--no-reload", description = "Do not reload changed files.")
  private boolean noReload;

  @Override
  public Integer call() {
    control.check(listening.isOpenToOthers());
    identity.check();
    if (store != null && !control.isWanted()) {
      throw new WrongUsage("--store is shown by the control port. Fix: --control PORT.");
    }
    if (files.isEmpty()
        && !identity.isWanted()
        && !control.isWanted()
        && !through
        && listening.upstream() == null) {
      throw new WrongUsage(
          "nothing to serve. Fix: name a stub file, a cassette or an API description.");
    }
    Served served = new Served(files);
    String meant = meant(served);
    CallPrinter printer = new CallPrinter(output, false);
    Settings settings =
        confined(listening.settings(meant).treatHttpAsHttps(true).cors(cors).callListener(printer));
    Cachette net = Cachette.open(control.isWanted() ? settings.maxCalls(MOST_CALLS) : settings);
    ControlledSessions sessions =
        new ControlledSessions(
            () ->
                session(settings.listenAddress(listening.at(0)).servingThreads(1), served, meant));
    try {
      String address = begin(net, served, meant, sessions);
      output.remark(
          "serving at " + address + (meant == null ? "" : " as " + meant) + " until it is stopped");
    } catch (RuntimeException impossible) {
      net.close();
      throw impossible;
    }
    Stopping.await(
        () -> {
          sessions.close();
          close(net);
          output.remark("stopped: " + printer.summary() + printer.failures());
          return 0;
        });
    return 0;
  }

  /** Returns the origin of plain calls; null if the Host header says so. */
  private @Nullable String meant(Served served) {
    if (listening.origin() != null) {
      return listening.origin();
    }
    return served.onlyOrigin() == null ? identity.origin() : served.onlyOrigin();
  }

  private static void close(Cachette net) {
    try {
      net.close();
    } catch (AssertionError told) {
      // Failures were reported when they happened.
    }
  }

  /** Opens a Cachette for a session; it serves the files as they are now. */
  private Cachette session(Settings settings, Served served, @Nullable String meant) {
    Cachette net = Cachette.open(settings);
    try {
      serve(net, served, meant, watch());
      return net;
    } catch (RuntimeException impossible) {
      net.close();
      throw impossible;
    }
  }

  private String begin(
      Cachette net, Served served, @Nullable String meant, ControlledSessions sessions) {
    FileWatch watch = watch();
    serve(net, served, meant, watch);
    if (!noReload) {
      watch.start();
    }
    String address = net.baseUrl();
    listening.writeCertificate(net.proxy().authorityPem());
    if (control.isWanted()) {
      ControlPort port =
          control.port(new Controlled(net), sessions, listening.at(control.number()));
      if (store != null) {
        ContractStore contracts = ContractStore.at(store);
        port.contracts(() -> tables(contracts));
      }
      control.open(port, output);
    }
    return address;
  }

  private void serve(Cachette net, Served served, @Nullable String meant, FileWatch watch) {
    served.serveBy(net, meant, watch);
    identity.serveBy(net);
    if (through || listening.upstream() != null) {
      net.letThrough("* /{+rest}");
    }
    // Stubs added by the control port, and calls, are in a scope that can be reset.
    net.scope();
  }

  private FileWatch watch() {
    return new FileWatch(
        what -> output.remark("reloaded: " + what),
        failed -> {
          String separator = failed instanceof StubFileException ? "\n" : " ";
          output.remark(
              "reload failed, the previous version stays in use:"
                  + separator
                  + Failure.line(failed));
        });
  }

  private static JsonNode tables(ContractStore store) {
    try {
      return CompatibilityText.json(store.compatibility());
    } catch (StoreException unreadable) {
      throw new IllegalStateException(unreadable.getMessage(), unreadable);
    }
  }

  /** Whoever may use the control port without a token must not reach what they could not before. */
  private Settings confined(Settings settings) {
    return control.isWithoutToken() ? settings.declaredWithin(folders()) : settings;
  }

  private List<Path> folders() {
    return files.stream()
        .map(file -> Files.isDirectory(file) ? file : file.toAbsolutePath().getParent())
        .distinct()
        .toList();
  }
}
