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
 * Says at a terminal that a command is still at work, from its second second on. In a pipe, nothing
 * is said.
 */
final class Working {

  private static final long FIRST = 1;
  private static final long BETWEEN = 5;

  /** These say themselves what they are doing, or go on until they are stopped. */
  private static final Set<String> TELLING = Set.of("demo", "serve", "record", "refresh");

  private Working() {}

  /** Runs the command that was asked for; answers its exit code. */
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
          err.println(name + ": at work for " + seconds + " s");
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
