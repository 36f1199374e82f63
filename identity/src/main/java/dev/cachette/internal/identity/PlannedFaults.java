// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.identity.option.IdentityFault;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.Optional;
import java.util.Set;

/** The faults that a test has asked for. Thread-safe. */
public final class PlannedFaults {

  /** Answers to authorization requests. */
  static final Set<IdentityFault> OF_AUTHORIZATION =
      Set.of(
          IdentityFault.ACCESS_DENIED,
          IdentityFault.LOGIN_REQUIRED,
          IdentityFault.CONSENT_REQUIRED);

  /** Answers to devices that ask for tokens. */
  static final Set<IdentityFault> OF_DEVICES =
      Set.of(IdentityFault.AUTHORIZATION_PENDING, IdentityFault.SLOW_DOWN);

  /** Faults of tokens. */
  static final Set<IdentityFault> IN_TOKENS =
      Set.of(
          IdentityFault.UNKNOWN_KEY,
          IdentityFault.WRONG_SIGNATURE,
          IdentityFault.WRONG_ISSUER,
          IdentityFault.WRONG_AUDIENCE,
          IdentityFault.WRONG_NONCE,
          IdentityFault.EXPIRED,
          IdentityFault.NOT_YET_VALID,
          IdentityFault.UNSIGNED);

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

  /** Returns true if a fault is next, and uses it up if it is for one request. */
  boolean take(IdentityFault fault) {
    return take(Set.of(fault)).isPresent();
  }

  /** Returns the next of some faults, and uses it up if it is for one request. */
  synchronized Optional<IdentityFault> take(Set<IdentityFault> kind) {
    Iterator<IdentityFault> planned = once.iterator();
    while (planned.hasNext()) {
      IdentityFault next = planned.next();
      if (kind.contains(next)) {
        planned.remove();
        return Optional.of(next);
      }
    }
    return always.stream().filter(kind::contains).findFirst();
  }
}
