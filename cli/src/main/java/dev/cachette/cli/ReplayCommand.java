// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.cases.CaseReplay;
import dev.cachette.cases.Cases;
import dev.cachette.replay.CaseFinding.Kind;
import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayReports;
import dev.cachette.replay.ReplayResult;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette replay}. */
@Command(
    name = "replay",
    mixinStandardHelpOptions = true,
    description = {
      "Replay cases against a running application, and report what it does differently.",
      "Sends the incoming call of each case, answers the outgoing calls from the case, and compares"
          + " the response, and what was called."
    },
    footerHeading = "%nExample:%n",
    footer = {"  cachette replay src/test/cases --app http://localhost:8080 -- java -jar app.jar"})
final class ReplayCommand implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RequestOptions requests;
  @Mixin private JUnitXmlOption junitXml;
  @Mixin private Application application;
  @Mixin private AuthorityOption authority;
  @Mixin private ControlOptions control;

  @Parameters(index = "0", paramLabel = "CASES", description = "The folder of cases.")
  private Path folder;

  @Parameters(
      index = "1..*",
      paramLabel = "COMMAND",
      description = "A command after --, which starts the application.")
  private List<String> command = List.of();

  @Option(
      names = "--case",
      paramLabel = "NAME",
      description = "Replay only this case. Can be repeated.")
  private List<String> names = List.of();

  @Option(
      names = "--update",
      description = "Update the files of cases that differ to what the application does now.")
  private boolean updating;

  @Override
  public Integer call() throws IOException {
    List<CaseResult> results = new ArrayList<>();
    try (Cachette net = Cachette.open(settings());
        CapturePort page = CapturePort.open(control, net, new ReplayedCases(results), output)) {
      CaseReplay replay = replay(net);
      int code;
      if (command.isEmpty()) {
        net.baseUrl();
        code = run(replay, results);
      } else {
        try (Application.Started started =
            application.start(command, net.proxy().uri(), net.proxy().authorityPem(), 0, output)) {
          code = run(replay, results);
        }
      }
      if (page.isOpen()) {
        output.remark("the page stays until this is stopped");
        Stopping.await(() -> code);
      }
      return code;
    }
  }

  private Settings settings() {
    int port = application.outgoingPort(!command.isEmpty()).orElse(0);
    return Settings.defaults()
        .name("the command line")
        .withoutInterception()
        .unexpectedCalls(UnexpectedCalls.WARN)
        .unusedStubs(UnusedStubs.IGNORE)
        .certificateAuthority(authority.file())
        .listenAddress(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
  }

  private CaseReplay replay(Cachette net) {
    try {
      CaseReplay replay =
          Cases.in(folder).answerBackground(net).against(application.origin()).with(net);
      if (!names.isEmpty()) {
        replay.only(names::contains);
      }
      requests.giveTo(replay::header, replay::secret);
      return replay.updating(updating);
    } catch (IllegalArgumentException wrong) {
      throw new WrongUsage(String.valueOf(wrong.getMessage()));
    }
  }

  private int run(CaseReplay replay, List<CaseResult> results) throws IOException {
    ReplayResult result =
        replay.replay(
            each -> {
              synchronized (results) {
                results.add(each);
              }
            });
    junitXml.write(() -> ReplayReports.junitXml(result));
    if (output.isJson()) {
      output.json(ReplayReports.json(result));
    } else {
      print(result);
    }
    long different = result.different().size();
    output.remark(
        String.format(
            Locale.ROOT,
            "%d %s replayed against %s: %d as captured%s",
            result.cases().size(),
            result.cases().size() == 1 ? "case" : "cases",
            application.origin(),
            result.cases().size() - different,
            different == 0 ? "" : ", " + different + " different"));
    if (result.different().stream().anyMatch(it -> !it.updated())) {
      output.remark(
          "Fix: correct the application; or, if this is intended, add --update, or capture the"
              + " cases again, and review the change.");
    }
    boolean nothing =
        result.cases().stream()
            .allMatch(it -> it.findings().stream().anyMatch(of -> of.kind() == Kind.NO_RESPONSE));
    boolean good = result.cases().stream().allMatch(it -> it.isSame() || it.updated());
    return good ? 0 : nothing ? Tool.IMPOSSIBLE : Tool.DOES_NOT_HOLD;
  }

  private void print(ReplayResult result) {
    Table table = new Table("CASE", "CALL", "TIME", "RESULT");
    for (CaseResult each : result.cases()) {
      table.add(
          each.name(),
          call(each),
          each.took().toMillis() + " ms",
          each.updated() ? "updated" : each.isSame() ? "as captured" : "DIFFERENT");
    }
    StringBuilder text = new StringBuilder(table.toString());
    result.different().forEach(it -> text.append('\n').append(it.differences()));
    output.result(text.toString());
  }

  private static String call(CaseResult result) {
    int more = result.calls().size() - 1;
    return result.calls().get(0) + (more == 0 ? "" : " and " + more + " more");
  }
}
