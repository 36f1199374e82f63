// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.calls;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.List;
import java.util.RandomAccess;

/**
 * A list that mostly grows at its end and shrinks at its beginning, and of which a snapshot costs
 * nothing: many may look at a log of thousands of calls after each of them. Not thread-safe; its
 * snapshots are, once they are published safely.
 *
 * @param <E> the type of an element
 */
public final class GrowingList<E> {

  private static final int FIRST_CAPACITY = 16;

  /** Removed elements are held until they are this part of the others: an eighth. */
  private static final int MOST_REMOVED = 8;

  /** Never changed where a snapshot can see it: only after its end. */
  private Object[] elements = new Object[FIRST_CAPACITY];

  private int from;
  private int to;

  /** Returns the number of elements. */
  public int size() {
    return to - from;
  }

  /** Returns true if there are no elements. */
  public boolean isEmpty() {
    return from == to;
  }

  /** Returns the element at an index. */
  public E get(int index) {
    return element(elements, from + index);
  }

  /** Adds an element at the end. */
  public void add(E element) {
    if (to == elements.length) {
      copy();
    }
    elements[to++] = element;
  }

  /** Inserts an element; costs a copy. */
  public void insert(int index, E element) {
    Object[] copy = new Object[Math.max(FIRST_CAPACITY, 2 * (size() + 1))];
    System.arraycopy(elements, from, copy, 0, index);
    copy[index] = element;
    System.arraycopy(elements, from + index, copy, index + 1, size() - index);
    to = size() + 1;
    from = 0;
    elements = copy;
  }

  /** Removes and returns the first element; there must be one. */
  public E removeFirst() {
    E first = get(0);
    from++;
    if (from > size() / MOST_REMOVED) {
      copy();
    }
    return first;
  }

  /** Leaves the array to the snapshots, and to the garbage collector. */
  private void copy() {
    elements = Arrays.copyOfRange(elements, from, from + Math.max(FIRST_CAPACITY, 2 * size()));
    to -= from;
    from = 0;
  }

  /** Returns the elements of this moment. */
  public List<E> snapshot() {
    return new Snapshot<>(elements, from, to);
  }

  @SuppressWarnings("unchecked")
  private static <E> E element(Object[] elements, int at) {
    return (E) elements[at];
  }

  private static final class Snapshot<E> extends AbstractList<E> implements RandomAccess {

    private final Object[] elements;
    private final int from;
    private final int to;

    Snapshot(Object[] elements, int from, int to) {
      this.elements = elements;
      this.from = from;
      this.to = to;
    }

    @Override
    public E get(int index) {
      if (index < 0 || index >= size()) {
        throw new IndexOutOfBoundsException("index " + index + " of " + size());
      }
      return element(elements, from + index);
    }

    @Override
    public int size() {
      return to - from;
    }
  }
}
