// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import java.security.SecureRandom;
import java.util.Base64;

/** Tokens for the control port (RFC 6750), which nobody can guess. */
public final class ControlToken {

  private static final int BYTES = 24;

  private ControlToken() {}

  /** Returns a new one. */
  public static String create() {
    byte[] random = new byte[BYTES];
    new SecureRandom().nextBytes(random);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(random);
  }
}
