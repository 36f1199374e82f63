package dev.cachette.report;

import java.time.Instant;
import java.util.Optional;

/**
 * Tells which JVMs belong to one run: those that the same build tool has started, from its process.
 */
final class RunName {

  private RunName() {}

  /**
   * Returns a name for the run of this JVM: its nearest ancestor that is a JVM, too, which is Maven
   * or Gradle; or itself, if there is none, as when an editor runs tests.
   */
  static String ofThisJvm() {
    ProcessHandle self = ProcessHandle.current();
    Optional<ProcessHandle> ancestor = self.parent();
    while (ancestor.isPresent() && !isJvm(ancestor.get())) {
      ancestor = ancestor.get().parent();
    }
    ProcessHandle root = ancestor.orElse(self);
    long started = root.info().startInstant().orElse(Instant.EPOCH).toEpochMilli();
    return Long.toString(root.pid(), Character.MAX_RADIX)
        + "_"
        + Long.toString(started, Character.MAX_RADIX);
  }

  private static boolean isJvm(ProcessHandle process) {
    String command = process.info().command().orElse("");
    String file =
        command.substring(Math.max(command.lastIndexOf('/'), command.lastIndexOf('\\')) + 1);
    return file.equals("java") || file.equals("java.exe") || file.equals("javaw.exe");
  }
}
