// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.http.Header;
import dev.cachette.internal.misuse.Refusals;
import org.jspecify.annotations.Nullable;

/** Checks the arguments of the public API. */
final class Arguments {

  private Arguments() {}

  static <T> T given(String what, @Nullable T value) {
    return Refusals.given(what, value);
  }

  static String named(String what, @Nullable String name) {
    if (name == null || name.isBlank()) {
      throw Refusals.argument(what + " needs a name, but was given " + shown(name) + ".");
    }
    return name;
  }

  /** Returns the name, which must be a token (RFC 9110 section 5.6.2). */
  static String token(String what, @Nullable String name) {
    try {
      return new Header(named(what, name), "").name();
    } catch (IllegalArgumentException malformed) {
      throw Refusals.argument(what + ": " + malformed.getMessage(), malformed);
    }
  }

  private static String shown(@Nullable String name) {
    return name == null ? "null" : "\"" + name + "\"";
  }
}
