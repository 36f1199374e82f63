package dev.cachette.internal.match;

/** How alike two texts are: 1 for the same, 0 for nothing in common. */
final class Likeness {

  private static final int LONGEST = 200;

  private Likeness() {}

  /** One minus the Levenshtein distance in proportion to the longer text. */
  static double of(String one, String other) {
    if (one.equals(other)) {
      return 1;
    }
    String a = one.substring(0, Math.min(one.length(), LONGEST));
    String b = other.substring(0, Math.min(other.length(), LONGEST));
    int longer = Math.max(a.length(), b.length());
    return 1 - (double) distance(a, b) / longer;
  }

  private static int distance(String a, String b) {
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
      }
      above = current;
    }
    return above[b.length()];
  }
}
