// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Suggests a similar name. Similarity is 1 for equal texts, and 0 for nothing in common. */
public final class NameSuggester {

  private static final int LONGEST = 200;

  /** From here on, one name is likely a misspelling of the other. */
  private static final double NEAR = 0.7;

  /** The same for names with a common beginning, such as draught and draft. */
  private static final double NEAR_ENOUGH = 0.55;

  private static final int START = 3;

  private NameSuggester() {}

  /**
   * Returns one minus the edit distance divided by the longer length; two neighbours in the wrong
   * order are one edit, as the most common slip of fingers.
   */
  public static double of(String one, String other) {
    if (one.equals(other)) {
      return 1;
    }
    String a = one.substring(0, Math.min(one.length(), LONGEST));
    String b = other.substring(0, Math.min(other.length(), LONGEST));
    int longer = Math.max(a.length(), b.length());
    return 1 - (double) distance(a, b) / longer;
  }

  /**
   * Returns the name that was most likely confused with the wanted one: the same ignoring case, or
   * similarly spelled.
   */
  public static Optional<String> closest(String wanted, Collection<String> names) {
    return names.stream()
        .filter(name -> !name.equals(wanted))
        .filter(name -> nearness(wanted, name) >= (startAlike(wanted, name) ? NEAR_ENOUGH : NEAR))
        .max(Comparator.comparingDouble(name -> nearness(wanted, name)));
  }

  /** Returns a question with such a name: {@code Did you mean "pattern"?}; empty without one. */
  public static String question(String wanted, Collection<String> names) {
    return closest(wanted, names).map(it -> " Did you mean \"" + it + "\"?").orElse("");
  }

  /** Returns names, the most similar first; names that are as similar are sorted. */
  public static List<String> closestFirst(String wanted, Collection<String> names) {
    return names.stream()
        .sorted()
        .sorted(Comparator.comparingDouble(name -> -nearness(wanted, name)))
        .toList();
  }

  /**
   * Describes such a name: {@code a header with almost the same name, "X-RequestId"}.
   *
   * @param what the kind of name, with its article
   */
  public static Optional<String> hint(String what, String wanted, Collection<String> names) {
    return closest(wanted, names)
        .map(near -> what + " with almost the same name, \"" + near + "\"");
  }

  private static double nearness(String wanted, String name) {
    String bareWanted = bare(wanted);
    String bareName = bare(name);
    return bareWanted.equals(bareName) ? 1 : of(bareWanted, bareName);
  }

  private static boolean startAlike(String wanted, String name) {
    return bare(wanted).regionMatches(0, bare(name), 0, START);
  }

  /** Removes separators and case: vessel-name, vessel_name, vesselName. */
  private static String bare(String name) {
    return name.replaceAll("[-_. ]", "").toLowerCase(Locale.ROOT);
  }

  private static int distance(String a, String b) {
    int[] twoAbove = new int[b.length() + 1];
    int[] above = new int[b.length() + 1];
    for (int column = 0; column <= b.length(); column++) {
      above[column] = column;
    }
    for (int row = 1; row <= a.length(); row++) {
      int[] current = new int[b.length() + 1];
      current[0] = row;
      for (int column = 1; column <= b.length(); column++) {
        int change = a.charAt(row - 1) == b.charAt(column - 1) ? 0 : 1;
        int insertOrDelete = Math.min(above[column], current[column - 1]) + 1;
        current[column] = Math.min(insertOrDelete, above[column - 1] + change);
        if (isSwapped(a, row, b, column)) {
          current[column] = Math.min(current[column], twoAbove[column - 2] + 1);
        }
      }
      twoAbove = above;
      above = current;
    }
    return above[b.length()];
  }

  private static boolean isSwapped(String a, int row, String b, int column) {
    return row > 1
        && column > 1
        && a.charAt(row - 1) == b.charAt(column - 2)
        && a.charAt(row - 2) == b.charAt(column - 1);
  }
}
