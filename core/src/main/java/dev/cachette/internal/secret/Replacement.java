// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import dev.cachette.internal.text.Placeholders;

/** Replaces secrets: by a mask in messages, by a placeholder in files. */
@FunctionalInterface
public interface Replacement {

  /** Returns the text in place of a secret; its own value leaves it unchanged. */
  String of(Secret secret);

  /** Returns the text in place of a value, unless that is empty or a placeholder already. */
  default String unlessPlaceholder(Secret secret) {
    String value = secret.value();
    return value.isEmpty() || Placeholders.is(value) ? value : of(secret);
  }

  /** Is notified of text that has secrets within its encoding, such as JSON in Base64. */
  default void encoded(String text) {}
}
