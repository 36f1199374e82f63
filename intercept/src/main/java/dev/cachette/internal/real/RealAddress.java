// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Uri;

/**
 * Another address of a real service.
 *
 * @param origin its origin
 * @param hostName the host name in TLS and in the Host header
 */
public record RealAddress(Uri origin, String hostName) {

  /** Returns the address with its own host name. */
  public static RealAddress of(String origin) {
    Uri parsed = Uri.parseOrigin(origin);
    return new RealAddress(parsed, parsed.host());
  }
}
