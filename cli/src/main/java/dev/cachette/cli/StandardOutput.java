// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.util.Locale;

/** Standard output, which remembers why writing failed; printers do not. */
final class StandardOutput extends FileOutputStream {

  private static volatile boolean pipeClosed;

  StandardOutput() {
    super(FileDescriptor.out);
  }

  /** Returns true if its reader has closed the pipe. */
  static boolean isPipeClosed() {
    return pipeClosed;
  }

  @Override
  public void write(byte[] bytes, int from, int length) throws IOException {
    try {
      super.write(bytes, from, length);
    } catch (IOException failed) {
      pipeClosed = String.valueOf(failed.getMessage()).toLowerCase(Locale.ROOT).contains("pipe");
      throw failed;
    }
  }
}
