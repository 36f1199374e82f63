// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.internal.misuse.Refusals;
import java.net.URI;

/** Reads URLs of running applications. */
final class BaseUrl {

  private BaseUrl() {}

  /**
   * Returns the URL.
   *
   * @throws IllegalArgumentException if it is not an http or https URL with a host
   */
  static URI parse(String text) {
    try {
      URI url = URI.create(text);
      if (url.getHost() != null
          && url.getScheme().matches("https?")
          // Passwords belong in headers, which no message shows.
          && url.getUserInfo() == null
          && url.getQuery() == null
          && url.getFragment() == null) {
        return url;
      }
    } catch (IllegalArgumentException malformed) {
      // The same message says what is right.
    }
    throw Refusals.argument(
        "\"" + text + "\" is not the URL of an application. Fix: http://localhost:8080");
  }
}
