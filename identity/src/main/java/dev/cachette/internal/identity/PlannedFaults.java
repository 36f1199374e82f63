// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.identity.option.IdentityFault;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** The faults that a test has asked for. Thread-safe. */
public final class PlannedFaults {

  private final Deque<IdentityFault> once = new ArrayDeque<>();
  private final Set<IdentityFault> always = EnumSet.noneOf(IdentityFault.class);

  /** Plans a fault for the next request that it can be the answer to. */
  public synchronized void once(IdentityFault fault) {
    once.add(fault);
  }

  /** Plans a fault for every request from now on. */
  public synchronized void always(IdentityFault fault) {
    always.add(fault);
  }

  /** Forgets all of them. */
  public synchronized void clear() {
    once.clear();
    always.clear();
  }

  /** Returns the next fault of a kind, and uses it up if it is for one request. */
  synchronized Optional<IdentityFault> take(Predicate<IdentityFault> kind) {
    Iterator<IdentityFault> planned = once.iterator();
    while (planned.hasNext()) {
      IdentityFault next = planned.next();
      if (kind.test(next)) {
        planned.remove();
        return Optional.of(next);
      }
    }
    return always.stream().filter(kind).findFirst();
  }
}
