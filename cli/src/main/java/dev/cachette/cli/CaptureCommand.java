// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.RealServices;
import dev.cachette.cases.Capture;
import dev.cachette.cases.CaptureSettings;
import dev.cachette.cases.CasesOfHar;
import dev.cachette.tooling.RunningCommand;
import dev.cachette.tooling.ToolingException;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette capture}. */
@Command(
    name = "capture",
    mixinStandardHelpOptions = true,
    description = {
      "Capture the calls of a running application as test cases.",
      "Each call to the listen address is passed on to the application, and becomes a case: the"
          + " incoming call with the outgoing calls that it caused. Secrets are redacted. While it"
          + " runs, type: name NUMBER NAME, drop NUMBER, vary NUMBER PLACE, list, stop."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette capture --to src/test/cases --app http://localhost:8080 --listen 8090 \\",
      "      -- java -jar app.jar",
      "  cachette capture --to src/test/cases --app http://localhost:8080 \\",
      "      --calls 'sh calls.sh' -- java -jar app.jar",
      "  cachette capture --to src/test/cases --app http://localhost:8080 --from browser.har"
    })
final class CaptureCommand implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private Application application;
  @Mixin private RedactionOptions rules;
  @Mixin private TrustedCa trusted;
  @Mixin private ServiceAddresses addresses;
  @Mixin private AuthorityOption authority;
  @Mixin private ControlOptions control;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "FOLDER",
      description = "The folder of cases. Cases that are there stay, but for what has changed.")
  private Path folder;

  @Option(
      names = "--listen",
      paramLabel = "[ADDRESS:]PORT",
      converter = SocketAddressReader.class,
      description = "Where to call instead of the application; by default a free port.")
  private InetSocketAddress listen = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

  @Option(
      names = "--calls",
      paramLabel = "COMMAND",
      description =
          "Run this command, by sh, once the application is ready, and stop when it has ended. The"
              + " variable CAPTURE_URL has the address to call.")
  private @Nullable String calls;

  @Option(
      names = "--session",
      paramLabel = "NAME",
      description = "Write all calls as the steps of one case.")
  private @Nullable String session;

  @Option(
      names = "--session-cookie",
      paramLabel = "NAME",
      description = "Write calls with the same value of this cookie as the steps of one case.")
  private @Nullable String sessionCookie;

  @Option(
      names = "--twice",
      description = "Repeat GET and HEAD requests once, and mark what differs as varying.")
  private boolean twice;

  @Option(
      names = "--background",
      paramLabel = "REQUEST",
      description =
          "Outgoing calls that the application makes by itself: \"GET"
              + " https://status.example/{+rest}\". Can be repeated.")
  private List<String> background = List.of();

  @Option(
      names = "--from",
      paramLabel = "HAR",
      description =
          "Make cases of a HAR file that a browser has exported, instead of capturing. They have no"
              + " outgoing calls.")
  private @Nullable Path exported;

  @Parameters(
      arity = "0..*",
      paramLabel = "COMMAND",
      description =
          "A command after --, which starts the application. Its outgoing calls are taken by an"
              + " agent in JVMs, and by proxy variables in other programs.")
  private List<String> command = List.of();

  @Override
  public Integer call() throws IOException {
    if (exported != null) {
      return convert(exported);
    }
    CaptureEnd end = new CaptureEnd();
    int code = Tool.IMPOSSIBLE;
    try {
      code = capture(end);
      return code;
    } finally {
      end.done(code);
    }
  }

  private int capture(CaptureEnd end) throws IOException {
    CasePrinter printer = new CasePrinter(output);
    Capture capture = Capture.open(settings(), printer);
    Stopping.atSignal(end);
    try (CapturePort port = CapturePort.open(control, capture, output)) {
      if (command.isEmpty()) {
        return run(capture, printer, end, null);
      }
      try (Application.Started started =
          application.start(
              command, capture.proxy(), capture.authorityPem(), capture.agentPort(), output)) {
        return run(capture, printer, end, started.command());
      }
    } finally {
      capture.close();
    }
  }

  private int convert(Path har) {
    List<String> names = CasesOfHar.convert(har, application.origin(), folder, rules.redaction());
    output.result(String.join("\n", names));
    output.remark(names.size() + (names.size() == 1 ? " case" : " cases") + " in " + folder);
    return names.isEmpty() ? Tool.DOES_NOT_HOLD : 0;
  }

  private CaptureSettings settings() {
    try {
      CaptureSettings settings =
          CaptureSettings.of(folder, application.origin())
              .listenAddress(listen)
              .redaction(rules.redaction())
              .realServices(trusted.addedTo(addresses.addedTo(RealServices.defaults())))
              .certificateAuthority(authority.file())
              .background(background.toArray(String[]::new));
      Integer port = application.outgoingPort(!command.isEmpty()).orElse(null);
      settings = port == null ? settings : settings.outgoingPort(port);
      settings = session == null ? settings : settings.session(session);
      settings = sessionCookie == null ? settings : settings.sessionCookie(sessionCookie);
      return twice ? settings.repeatingSafe() : settings;
    } catch (IllegalArgumentException wrong) {
      throw new WrongUsage(String.valueOf(wrong.getMessage()));
    }
  }

  private int run(
      Capture capture, CasePrinter printer, CaptureEnd end, @Nullable RunningCommand started)
      throws IOException {
    output.remark("capturing calls at " + capture.baseUrl() + " for " + application.origin());
    int code = 0;
    if (calls != null) {
      code = CallingCommand.run(calls, capture.baseUrl(), end);
    } else {
      CaseCommands.read(capture, output, printer, end);
      end.await(started);
    }
    capture.close();
    printer.summary(folder);
    if (code != 0) {
      throw new ToolingException("the command of --calls has exited with " + code + ".");
    }
    return 0;
  }
}
