package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.StubFiles;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Recording;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.ArrayList;
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
      "Answers calls from stub files and cassettes.",
      "As a plain server, for the hosts that Host headers name, and as a forward proxy, all at one",
      "port, by HTTP/1.1, HTTP/2 and HTTPS. Changed stub files are read again; calls are printed,",
      "one a line."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette serve harbour.stubs.yaml --port 8080 --for https://tides.example",
      "  cachette serve arrival.har --port 8080 --control 8081",
      "  curl --proxy http://127.0.0.1:8080 http://tides.example/v1/stations/marrow/tides"
    })
final class Serve implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private Listening listening;

  @Parameters(
      arity = "0..*",
      paramLabel = "FILE",
      description = "Stub files (.yaml, .yml, .json) and cassettes (.har).")
  private List<Path> files = List.of();

  @Option(
      names = "--through",
      description = "Let calls that nothing answers go to the real services.")
  private boolean through;

  @Option(
      names = "--control",
      paramLabel = "PORT",
      description = {
        "Listen for control at this port, too: stubs to be added and dropped, calls to be read.",
        "GET /openapi.json there describes it."
      })
  private @Nullable Integer control;

  @Option(
      names = "--token",
      paramLabel = "TOKEN",
      description = {
        "What callers of the control port must show, as Authorization: Bearer. Needed where",
        "--listen lets other machines call."
      })
  private @Nullable String token;

  @Option(names = "--no-reload", description = "Do not look for changed files.")
  private boolean noReload;

  @Override
  public Integer call() {
    if (control != null && listening.isOpenToOthers() && token == null) {
      throw new Failure(
          "a control port that other machines reach needs a --token that they must show.");
    }
    if (files.isEmpty() && control == null && !through && listening.upstream() == null) {
      throw new Failure("there is nothing to serve. Mend: name a stub file or a cassette.");
    }
    CallPrinter printer = new CallPrinter(output, false);
    Cachette net = Cachette.open(listening.settings().plainAsSecure().watchingCalls(printer));
    try {
      String address = begin(net);
      output.remark("serving at " + address + " until it is stopped");
    } catch (RuntimeException impossible) {
      net.close();
      throw impossible;
    }
    Stopping.await(
        () -> {
          net.close();
          output.remark("stopped: " + printer.summary());
          return 0;
        });
    return 0;
  }

  private String begin(Cachette net) {
    List<String> stubFiles = new ArrayList<>();
    for (Path file : files) {
      if (GivenFile.of(file) == GivenFile.CASSETTE) {
        net.cassette(file, CassetteSettings.defaults().recording(Recording.REPLAY));
      } else {
        stubFiles.add(file.toString());
      }
    }
    if (!stubFiles.isEmpty()) {
      StubFiles loaded = net.load(stubFiles.toArray(String[]::new));
      if (!noReload) {
        new Reloading(loaded, output).start();
      }
    }
    if (through || listening.upstream() != null) {
      net.letThrough("* /{+rest}");
    }
    // What is added by control, and the calls, are of a scope that can be reset.
    net.scope();
    String address = net.address();
    listening.writeCertificate(net.proxy().authorityPem());
    if (control != null) {
      InetSocketAddress at = new InetSocketAddress(listening.host(), Listening.port(control));
      output.remark("control at " + new Control(net, at, token).open());
    }
    return address;
  }
}
