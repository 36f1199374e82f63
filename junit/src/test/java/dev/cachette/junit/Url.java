// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;

/** The code under test: makes one call, and does not care how it ends. */
final class Url {

  private Url() {}

  static int status(String url) {
    try {
      HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
      return connection.getResponseCode();
    } catch (IOException failed) {
      return -1;
    }
  }
}
