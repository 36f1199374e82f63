// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.text.Normalizer;
import java.util.Locale;

/** The name of a field without what differs between notations, such as {@code api-key}. */
public final class PlainName {

  private PlainName() {}

  /** Returns the name in lower case, with letters, without accents, and digits only. */
  public static String of(String name) {
    String lower = name.toLowerCase(Locale.ROOT);
    boolean isAscii = lower.chars().allMatch(c -> c < 0x80);
    // The accents of letters are characters of their own then.
    String letters = isAscii ? lower : Normalizer.normalize(lower, Normalizer.Form.NFD);
    return letters.replaceAll("[^a-z0-9]", "");
  }
}
