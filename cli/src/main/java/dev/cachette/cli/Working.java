// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.PrintWriter;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import picocli.CommandLine;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.ParseResult;

/**
 * Shows progress at a terminal if a command takes longer than a second. Prints nothing to a pipe.
 */
final class Working {

  private static final long FIRST = 1;
  private static final long BETWEEN = 5;

  /** Commands that show progress themselves, or run until they are stopped. */
  private static final Set<String> TELLING =
      Set.of("demo", "serve", "record", "refresh", "capture", "replay");

  private Working() {}

  /** Runs the requested command; returns its exit code. */
  static int run(ParseResult parsed) {
    ParseResult command = parsed.hasSubcommand() ? parsed.subcommand() : parsed;
    String name = command.commandSpec().name();
    boolean silent = command.hasMatchedOption("--quiet") || !Ansi.AUTO.enabled();
    if (silent || TELLING.contains(name)) {
      return new CommandLine.RunLast().execute(parsed);
    }
    PrintWriter err = command.commandSpec().commandLine().getErr();
    long began = System.nanoTime();
    ScheduledExecutorService timer =
        Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "cachette-working");
              thread.setDaemon(true);
              return thread;
            });
    timer.scheduleAtFixedRate(
        () -> {
          long seconds = TimeUnit.NANOSECONDS.toSeconds(System.nanoTime() - began);
          err.println(name + ": running for " + seconds + " s");
        },
        FIRST,
        BETWEEN,
        TimeUnit.SECONDS);
    try {
      return new CommandLine.RunLast().execute(parsed);
    } finally {
      timer.shutdownNow();
    }
  }
}
