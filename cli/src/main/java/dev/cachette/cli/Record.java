// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.tooling.FileKind;
import dev.cachette.tooling.ProxiedCommand;
import dev.cachette.tooling.RecordingSettings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette record}. */
@Command(
    name = "record",
    mixinStandardHelpOptions = true,
    description = {
      "Record calls into a cassette, with secrets redacted.",
      "It is a forward proxy for any service, or with --upstream a reverse proxy for one. It runs"
          + " until it is stopped, or while a command runs, which gets the proxy and the"
          + " certificate in environment variables."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette record --to tides.har --upstream https://tides.example --port 8080",
      "  cachette record --to tides.har --secret TIDES_KEY= -- curl https://tides.example/v1"
    })
final class Record implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private Listening listening;
  @Mixin private RedactionOptions rules;

  @Option(names = "--to", required = true, paramLabel = "FILE", description = "The cassette.")
  private Path target;

  @Option(
      names = "--rewrite",
      description = "Replace the content of the cassette; by default, new calls are added.")
  private boolean rewriting;

  @Parameters(
      arity = "0..*",
      paramLabel = "COMMAND",
      description = "A command after --, whose calls are recorded while it runs.")
  private List<String> command = List.of();

  @Override
  public Integer call() throws IOException {
    if (FileKind.named(target) != FileKind.CASSETTE) {
      throw new WrongUsage("the name of a cassette ends in .har, but " + target + " does not.");
    }
    CallPrinter printer = new CallPrinter(output, !command.isEmpty());
    Cachette net = Cachette.open(listening.settings().callListener(printer));
    String address;
    try {
      net.cassette(target, settings());
      address = net.baseUrl();
      listening.writeCertificate(net.proxy().authorityPem());
    } catch (RuntimeException impossible) {
      net.close();
      throw impossible;
    }
    if (command.isEmpty()) {
      output.remark("recording at " + address + " until it is stopped");
      Stopping.await(() -> stop(net, printer));
      return 0;
    }
    return runCommand(net, printer);
  }

  private CassetteSettings settings() {
    return RecordingSettings.of(
        rewriting ? RecordingMode.REWRITE : RecordingMode.EXTEND, rules.redaction());
  }

  private int runCommand(Cachette net, CallPrinter printer) throws IOException {
    Path certificate = Files.createTempFile("cachette", ".pem");
    int code;
    try {
      Files.writeString(certificate, net.proxy().authorityPem());
      code = ProxiedCommand.of(command, net.proxy().uri(), certificate).run();
    } catch (RuntimeException | IOException impossible) {
      net.markFailed(impossible);
      net.close();
      throw impossible;
    } finally {
      Files.deleteIfExists(certificate);
    }
    int written = stop(net, printer);
    if (code != 0) {
      output.remark(command.get(0) + " exited with " + code + ".");
    }
    if (printer.isIdle()) {
      output.remark(
          "No call came through the proxy. It is in the variables http_proxy and https_proxy, which"
              + " some programs do not use: Node.js does since 22.21 and 24.5.\n"
              + "Fix: set the proxy in the program, or record with --upstream ORIGIN and let it"
              + " call that address.");
    }
    return code == 0 ? written : code;
  }

  private static boolean isUnfinished(Call call) {
    return call.state() != Call.State.ANSWERED;
  }

  private int stop(Cachette net, CallPrinter printer) {
    List<Call> unfinished = net.calls().stream().filter(Record::isUnfinished).toList();
    try {
      net.close();
      // Some are answered while it closes.
      printer.brokenOff(unfinished.stream().filter(Record::isUnfinished).count());
      String where = Files.exists(target) ? ", in " + target : "; nothing to write";
      output.remark("recorded: " + printer.summary() + where + printer.failures());
      return 0;
    } catch (RuntimeException | AssertionError notWritten) {
      output.error(Failure.line(notWritten));
      return Tool.IMPOSSIBLE;
    }
  }
}
