// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.util.Optional;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.junit.jupiter.api.extension.ExtensionContext.Store;

/**
 * The open session of one class or one test: a Cachette for the outermost, a scope inside it.
 *
 * @param net the Cachette of the test
 * @param owner its context; stores are inherited, intervals are not
 * @param end closes it
 */
record Interval(Cachette net, ExtensionContext owner, Runnable end) {

  private static final Namespace OURS = Namespace.create(Interval.class);

  /**
   * Begins the interval of a context. Annotations on a class and on its method share one interval.
   *
   * @return false if it had begun already
   */
  static boolean begin(ExtensionContext context, Settings settings) {
    if (!settings.interception() && context.getTestMethod().isEmpty()) {
      // Nothing is shared: each test opens its own.
      return false;
    }
    Optional<Interval> outer = find(context);
    requireEffect(context, outer);
    if (outer.isPresent() && outer.get().owner.equals(context)) {
      return false;
    }
    Interval begun =
        outer.isPresent()
            ? new Interval(outer.get().net, context, scope(outer.get().net, context)::close)
            : open(context, settings);
    store(context).put(Interval.class, begun);
    return true;
  }

  /** Settings count where interception begins; others would be ignored silently. */
  private static void requireEffect(ExtensionContext context, Optional<Interval> outer) {
    if (outer.filter(it -> !it.owner.equals(context)).isPresent()
        && TestSettings.areDeclaredOn(context)) {
      throw new ExtensionConfigurationException(
          String.format(
              "The settings of %s have no effect, because interception begins with %s. Fix: move"
                  + " them there.",
              context.getElement().map(Object::toString).orElseGet(context::getDisplayName),
              outer.get().owner.getRequiredTestClass().getName()));
    }
  }

  private static Cachette.Scope scope(Cachette net, ExtensionContext context) {
    return context
        .getTestMethod()
        .map(test -> net.scope(test.getDeclaringClass().getName(), test.getName()))
        .orElseGet(net::scope);
  }

  /** Ends the interval of a context, if it has one. */
  static void end(ExtensionContext context) {
    Interval interval = store(context).get(Interval.class, Interval.class);
    if (interval == null || !interval.owner.equals(context)) {
      return;
    }
    store(context).remove(Interval.class);
    interval.end.run();
  }

  /** Marks a test as failed, if it has. */
  static void markFailed(ExtensionContext context) {
    context
        .getExecutionException()
        .ifPresent(failure -> current(context).ifPresent(net -> net.markFailed(failure)));
  }

  static Optional<Cachette> current(ExtensionContext context) {
    return find(context).map(Interval::net);
  }

  private static Interval open(ExtensionContext context, Settings settings) {
    if (settings.interception()) {
      ParallelExecution.requireLock(context);
    }
    Cachette net = Cachette.open(settings.name(context.getRequiredTestClass().getName()));
    return new Interval(net, context, net::close);
  }

  private static Optional<Interval> find(ExtensionContext context) {
    return Optional.ofNullable(store(context).get(Interval.class, Interval.class));
  }

  private static Store store(ExtensionContext context) {
    return context.getStore(OURS);
  }
}
