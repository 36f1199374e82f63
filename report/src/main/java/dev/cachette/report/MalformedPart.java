// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import java.nio.file.Path;

/** A file of a JVM that cannot be read. */
public final class MalformedPart extends IllegalStateException {

  private static final long serialVersionUID = 1;

  MalformedPart(Path file, int line, String why) {
    super(
        String.format(
            "%s:%d is not part of a run report: %s. Fix: delete the file.", file, line, why));
  }
}
