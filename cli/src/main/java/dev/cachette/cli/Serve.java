package dev.cachette.cli;

import dev.cachette.Cachette;
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
      "Answers calls from stub files, cassettes, and the examples of OpenAPI descriptions.",
      "As a plain server, for the hosts that Host headers name, and as a forward proxy, all at "
          + "one port, by HTTP/1.1, HTTP/2 and HTTPS. Changed files are read again; calls are "
          + "printed, one a line."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette serve harbour.stubs.yaml --port 8080 --for https://tides.example",
      "  cachette serve berths.openapi.yaml --port 8080",
      "  cachette serve arrival.har --port 8080 --control 8081",
      "  curl --proxy http://127.0.0.1:8080 http://tides.example/v1/stations"
    })
final class Serve implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private Listening listening;

  @Parameters(
      arity = "0..*",
      paramLabel = "FILE",
      description =
          "Stub files (.yaml, .yml, .json), cassettes (.har), descriptions (OpenAPI 3.0 or "
              + "3.1). Calls to a service that is described are held against the description.")
  private List<Path> files = List.of();

  @Option(
      names = "--through",
      description = "Let calls that nothing answers go to the real services.")
  private boolean through;

  @Option(
      names = "--control",
      paramLabel = "PORT",
      converter = PortReader.class,
      description =
          "Listen for control at this port, too: stubs to be added and dropped, calls to be "
              + "read. GET /openapi.json there describes it.")
  private @Nullable Integer control;

  @Option(
      names = "--token",
      paramLabel = "TOKEN",
      description =
          "What callers of the control port must show, as Authorization: Bearer. Needed where "
              + "--listen lets other machines call.")
  private @Nullable String token;

  @Option(names = "--no-reload", description = "Do not look for changed files.")
  private boolean noReload;

  @Override
  public Integer call() {
    if (control != null && listening.isOpenToOthers() && token == null) {
      throw new WrongUsage(
          "a control port that other machines reach needs a --token that they must show.");
    }
    if (files.isEmpty() && control == null && !through && listening.upstream() == null) {
      throw new WrongUsage(
          "there is nothing to serve. Mend: name a stub file, a cassette or a description.");
    }
    Served served = new Served(files);
    String meant = listening.origin() == null ? served.onlyOrigin() : listening.origin();
    CallPrinter printer = new CallPrinter(output, false);
    Cachette net = Cachette.open(listening.settings(meant).plainAsSecure().watchingCalls(printer));
    try {
      String address = begin(net, served, meant);
      output.remark(
          "serving at "
              + address
              + " until it is stopped"
              + (meant == null ? "" : "; plain calls are for " + meant));
    } catch (RuntimeException impossible) {
      net.close();
      throw impossible;
    }
    Stopping.await(
        () -> {
          close(net);
          output.remark("stopped: " + printer.summary());
          return 0;
        });
    return 0;
  }

  private static void close(Cachette net) {
    try {
      net.close();
    } catch (AssertionError told) {
      // What failed was told when it did.
    }
  }

  private String begin(Cachette net, Served served, @Nullable String meant) {
    Reloading reloading = new Reloading(output);
    served.serveBy(net, meant, reloading);
    if (!noReload) {
      reloading.start();
    }
    if (through || listening.upstream() != null) {
      net.letThrough("* /{+rest}");
    }
    // What is added by control, and the calls, are of a scope that can be reset.
    net.scope();
    String address = net.address();
    listening.writeCertificate(net.proxy().authorityPem());
    if (control != null) {
      output.remark("control at " + new Control(net, listening.at(control), token).open());
    }
    return address;
  }
}
