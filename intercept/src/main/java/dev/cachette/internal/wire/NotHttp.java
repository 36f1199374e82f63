// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

/** Explains connections that are not HTTP. */
final class NotHttp {

  private NotHttp() {}

  static String summary(Destination destination) {
    return "a connection to " + destination + " that is not HTTP";
  }

  static String explanation(Destination destination, String what) {
    return String.format(
        "A connection to %s %s. It was closed, and nothing has left this machine.\n\n"
            + "Likely cause: a database, a broker, a mail server.\n\n"
            + "Fix: net.letThrough(\"%s\"), if the test is meant to reach it; or use a local"
            + " server, which is not intercepted.\n",
        destination, what, destination);
  }
}
