// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.model.StubSpec;
import java.nio.file.Path;
import java.util.Collection;
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
    return net.session().name();
  }

  /** Returns the folder of contract files of a session. */
  public static Path contractFolder(Cachette net) {
    return net.session().settings().contractFolder();
  }

  /**
   * Checks the names of properties, of which those that begin with {@code cachette.} must be known.
   *
   * @param source where they are from, for the message
   * @throws IllegalArgumentException if one is unknown; the message suggests another
   */
  public static void requireKnownProperties(Collection<String> names, String source) {
    SettingsProperties.requireKnown(names, source);
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
