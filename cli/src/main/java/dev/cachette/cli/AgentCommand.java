// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.tooling.LastingAgent;
import java.io.IOException;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** {@code cachette agent}. */
@Command(
    name = "agent",
    mixinStandardHelpOptions = true,
    description = {
      "Print the JVM option for an application that you start yourself.",
      "Its outgoing calls are led to cachette capture or cachette replay with the same"
          + " --outgoing-port while one runs, and go directly to their services otherwise."
    },
    footerHeading = "%nExample:%n",
    footer = {
      "  JAVA_TOOL_OPTIONS=$(cachette agent --outgoing-port 8091) java -jar app.jar",
      "  cachette capture --to src/test/cases --app http://localhost:8080 --outgoing-port 8091"
    })
final class AgentCommand implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private AuthorityOption authority;

  @Option(
      names = "--outgoing-port",
      required = true,
      paramLabel = "PORT",
      converter = PortReader.class,
      description = "The port of the proxy for outgoing calls. The port after it is used as well.")
  private int port;

  @Override
  public Integer call() throws IOException {
    Application.requireOneAfter(port);
    Settings settings =
        Settings.defaults()
            .name("the command line")
            .withoutInterception()
            .certificateAuthority(authority.file());
    try (Cachette net = Cachette.open(settings)) {
      output.result(LastingAgent.write(AuthorityOption.folder(), net.proxy().authorityPem(), port));
    }
    return 0;
  }
}
