// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The name of the file of a JVM.
 *
 * @param run the run that it is part of
 * @param process its process
 * @param started when that was started, in milliseconds: numbers of processes are used again
 */
record PartName(String run, long process, long started) {

  static final String EXTENSION = ".jsonl";

  private static final Pattern FORM =
      Pattern.compile("([0-9a-z_]+)-([0-9]{1,18})-([0-9]{1,18})\\.jsonl");

  /** Returns a name for this JVM. */
  static PartName ofThisJvm(String run) {
    ProcessHandle self = ProcessHandle.current();
    return new PartName(run, self.pid(), started(self));
  }

  /** Reads the name of a file; empty if it is another one. */
  static Optional<PartName> of(Path file) {
    Matcher name = FORM.matcher(file.getFileName().toString());
    return name.matches()
        ? Optional.of(
            new PartName(
                name.group(1), Long.parseLong(name.group(2)), Long.parseLong(name.group(3))))
        : Optional.empty();
  }

  static long started(ProcessHandle handle) {
    return handle.info().startInstant().orElse(Instant.EPOCH).toEpochMilli();
  }

  boolean isOf(ProcessHandle handle) {
    return process == handle.pid() && started == started(handle);
  }

  boolean isAlive() {
    return ProcessHandle.of(process).filter(this::isOf).isPresent();
  }

  /** Returns the name of the file. */
  @Override
  public String toString() {
    return run + "-" + process + "-" + started + EXTENSION;
  }
}
