// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.misuse.Refusals;
import org.jspecify.annotations.Nullable;

/** Checks the values of settings. */
final class Required {

  private Required() {}

  static void given(String setting, @Nullable Object value) {
    if (value == null) {
      throw Refusals.argument("The setting " + setting + " must not be null.");
    }
  }

  static <T extends Number> T positive(String setting, T value) {
    if (value.longValue() <= 0) {
      throw Refusals.argument("The setting " + setting + " must be positive, not " + value + ".");
    }
    return value;
  }
}
