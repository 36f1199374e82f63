// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.model.StubSpec;
import java.util.function.UnaryOperator;

/**
 * Members of this package for other modules of Cachette. Not public API: may change in any release.
 *
 * @hidden
 */
public final class CachetteInternals {

  private CachetteInternals() {}

  /** Adds an observer of one session, until it ends. */
  public static void observe(Cachette net, RunObserver observer) {
    net.session().observers().add(observer);
  }

  /** Returns the name of a session: that of its settings, or the line that opened it. */
  public static String name(Cachette net) {
    return net.sessionName();
  }

  /** Returns what was declared of a stub. */
  public static StubSpec spec(Stub stub) {
    return stub.rule().spec();
  }

  /** Changes what was declared of a stub. */
  public static void change(Stub stub, UnaryOperator<StubSpec> change) {
    stub.net().stubs().change(stub.rule(), change);
  }
}
