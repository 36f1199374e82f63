// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Tells which JVMs belong to one run: those that the same build tool has started, from its process.
 */
final class RunName {

  private RunName() {}

  /**
   * Returns a name for the run of this JVM. One that was started by a test belongs to the run of
   * that; others to their closest ancestor that is a JVM, which is Maven or Gradle. If there is
   * none, as when an editor runs tests, this JVM is a run.
   *
   * @param parts the files of JVMs in the folder of the report
   */
  static String ofThisJvm(List<Path> parts) {
    List<ProcessHandle> ancestors = ancestors();
    for (Path part : parts) {
      for (ProcessHandle ancestor : ancestors) {
        if (PartName.of(part).filter(name -> name.isOf(ancestor)).isPresent()) {
          return PartName.of(part).orElseThrow().run();
        }
      }
    }
    ProcessHandle root =
        ancestors.stream().filter(RunName::isJvm).findFirst().orElse(ProcessHandle.current());
    return Long.toString(root.pid(), Character.MAX_RADIX)
        + "_"
        + Long.toString(PartName.started(root), Character.MAX_RADIX);
  }

  private static List<ProcessHandle> ancestors() {
    List<ProcessHandle> ancestors = new ArrayList<>();
    Optional<ProcessHandle> next = ProcessHandle.current().parent();
    while (next.isPresent()) {
      ancestors.add(next.get());
      next = next.get().parent();
    }
    return ancestors;
  }

  private static boolean isJvm(ProcessHandle process) {
    String command = process.info().command().orElse("");
    int slash = Math.max(command.lastIndexOf('/'), command.lastIndexOf('\\'));
    String file = command.substring(slash + 1);
    return file.equals("java") || file.equals("java.exe") || file.equals("javaw.exe");
  }
}
