// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

/** A set of numbers, in an eighth of the memory of a collection. */
final class LongSet {

  private static final long SPREAD = 0x9E3779B97F4A7C15L;
  private static final int FIRST = 1 << 6;

  /** With linear probing; 0 is a free place. */
  private long[] table = new long[FIRST];

  private int size;
  private boolean hasZero;

  void add(long number) {
    if (number == 0) {
      hasZero = true;
      return;
    }
    if (size * 2 >= table.length) {
      grow();
    }
    int place = place(number);
    if (table[place] == 0) {
      table[place] = number;
      size++;
    }
  }

  boolean contains(long number) {
    return number == 0 ? hasZero : table[place(number)] == number;
  }

  /** Returns the place of a number, or a free one for it. */
  private int place(long number) {
    int place = (int) (number * SPREAD >>> Integer.SIZE) & table.length - 1;
    while (table[place] != 0 && table[place] != number) {
      place = place + 1 & table.length - 1;
    }
    return place;
  }

  private void grow() {
    long[] old = table;
    table = new long[old.length * 2];
    for (long number : old) {
      if (number != 0) {
        table[place(number)] = number;
      }
    }
  }
}
