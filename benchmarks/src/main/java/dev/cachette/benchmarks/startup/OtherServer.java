// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import java.io.IOException;

/** A JVM that calls a server running in another one, until its first HTTPS answer. */
public final class OtherServer {

  private OtherServer() {}

  /** Calls the URL given. */
  public static void main(String[] arguments) throws IOException {
    FirstCall.get(arguments[0]);
  }
}
