package dev.cachette.internal.text;

import java.util.Locale;

/** The name of a field without what differs between notations, such as {@code api-key}. */
public final class PlainName {

  private PlainName() {}

  /** Returns the name in lower case, with letters and digits only. */
  public static String of(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
  }
}
