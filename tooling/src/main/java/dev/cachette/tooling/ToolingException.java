// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import java.nio.file.Files;
import java.nio.file.Path;

/** Thrown if work on files cannot be done; the message names the file, the reason and the fix. */
public class ToolingException extends RuntimeException {

  private static final long serialVersionUID = 1;

  /** Creates one with a message for people. */
  public ToolingException(String message) {
    super(message);
  }

  /** Returns the exception that a file is needed at a path where there is none. */
  static ToolingException noFile(Path path) {
    return new ToolingException(
        Files.isDirectory(path)
            ? path + " is a folder. Fix: name its files: " + path.resolve("*")
            : "there is no file " + path + ".");
  }

  /** Returns a text without line breaks. */
  protected static String oneLine(String text) {
    return text.strip().replaceAll("\\s*\\R\\s*", " ");
  }
}
