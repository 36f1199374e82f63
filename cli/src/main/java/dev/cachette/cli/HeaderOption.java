// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.function.BiConsumer;

/** Reads a header as {@code --header} takes it: {@code authorization: Bearer ...}. */
final class HeaderOption {

  private HeaderOption() {}

  /** Gives its name and value to a receiver. */
  static void read(String text, BiConsumer<String, String> receiver) {
    int colon = text.indexOf(':');
    if (colon < 1) {
      throw new WrongUsage(
          "--header needs a name and a value: --header \"authorization: Bearer ...\"");
    }
    receiver.accept(text.substring(0, colon).strip(), text.substring(colon + 1).strip());
  }
}
