// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.util.concurrent.TimeUnit;

/** The command that calls the application while it is captured. */
final class CallingCommand {

  private static final String URL = "CAPTURE_URL";
  private static final long PAUSE_MILLIS = 100;

  private CallingCommand() {}

  /** Runs it, until it has ended or the end is asked for; returns its exit code. */
  static int run(String command, String url, CaptureEnd end) throws IOException {
    ProcessBuilder builder = new ProcessBuilder("sh", "-c", command);
    builder.redirectError(ProcessBuilder.Redirect.INHERIT);
    builder.redirectOutput(ProcessBuilder.Redirect.DISCARD);
    builder.environment().put(URL, url);
    Process process = builder.start();
    try {
      process.getOutputStream().close();
      while (!process.waitFor(PAUSE_MILLIS, TimeUnit.MILLISECONDS)) {
        if (end.isAsked()) {
          process.destroy();
        }
      }
      return process.exitValue();
    } catch (InterruptedException interrupted) {
      process.destroy();
      Thread.currentThread().interrupt();
      return 0;
    }
  }
}
