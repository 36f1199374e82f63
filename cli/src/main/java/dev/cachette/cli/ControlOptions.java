// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.control.ControlPort;
import dev.cachette.control.ControlToken;
import dev.cachette.control.Controlled;
import dev.cachette.control.ControlledSessions;
import java.net.InetSocketAddress;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options of the control port. */
final class ControlOptions {

  @Option(
      names = "--control",
      paramLabel = "PORT",
      converter = PortReader.class,
      description =
          "Open a control port as well, with a page for a browser, and with operations that GET"
              + " /openapi.json describes.")
  private @Nullable Integer control;

  @Option(
      names = "--token",
      paramLabel = "TOKEN",
      description =
          "The token for the control port, sent as Authorization: Bearer. By default one is made up"
              + " and printed.")
  private @Nullable String token;

  @Option(
      names = "--no-token",
      description =
          "Let every program on this machine use the control port. Stubs that it sends can then"
              + " only name files in the folders of the served ones, and not call real services.")
  private boolean noToken;

  /** The token that callers need; made up at first use. */
  private @Nullable String needed;

  /** Returns true if there is one. */
  boolean isWanted() {
    return control != null;
  }

  boolean isWithoutToken() {
    return noToken;
  }

  /** Returns its port. */
  int number() {
    return control == null ? 0 : control;
  }

  /**
   * Refuses options that exclude each other.
   *
   * @param isOpenToOthers whether other machines can reach it
   */
  void check(boolean isOpenToOthers) {
    if (control != null && isOpenToOthers && noToken) {
      throw new WrongUsage("a control port that other machines can reach needs a token.");
    }
    if (token != null && noToken) {
      throw new WrongUsage("--token and --no-token exclude each other.");
    }
  }

  /** Returns the port, to be opened. */
  ControlPort port(Controlled main, ControlledSessions sessions, InetSocketAddress at) {
    needed = noToken ? null : token == null ? ControlToken.create() : token;
    return new ControlPort(main, sessions, at, needed);
  }

  /** Opens the port, and prints how to reach it. */
  void open(ControlPort port, Output output) {
    String at = port.open();
    output.remark("control at " + at);
    output.remark("a page for a browser at " + at + "/");
    if (token == null && needed != null) {
      output.notice("token " + needed);
      output.remark("try: curl -H 'Authorization: Bearer " + needed + "' " + at + "/calls");
    }
  }
}
