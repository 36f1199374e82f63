// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;

/** The call that all programs make. */
final class FirstCall {

  private FirstCall() {}

  static void get(String url) throws IOException {
    try (InputStream in = URI.create(url).toURL().openConnection().getInputStream()) {
      if (in.readAllBytes().length == 0) {
        throw new IOException("no answer from " + url);
      }
    }
  }
}
