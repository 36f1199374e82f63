// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.limit;

/** A text for regular expressions, which cannot be stopped otherwise. */
record CheckedText(String text, int start, int end, TimeLimit limit) implements CharSequence {

  @Override
  public int length() {
    return end - start;
  }

  @Override
  public char charAt(int index) {
    limit.step();
    return text.charAt(start + index);
  }

  @Override
  public CharSequence subSequence(int from, int to) {
    return new CheckedText(text, start + from, start + to, limit);
  }

  @Override
  public String toString() {
    return text.substring(start, end);
  }
}
