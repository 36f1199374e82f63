// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.util.Optional;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.DynamicTestInvocationContext;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.InvocationInterceptor;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolutionException;
import org.junit.jupiter.api.extension.ParameterResolver;

/**
 * Intercepts the calls of a test class like {@link InterceptHttp}, with settings:
 *
 * <pre>{@code
 * @InterceptHttp
 * class BerthDeskTest {
 *
 *   @RegisterExtension
 *   static final CachetteExtension CACHETTE =
 *       CachetteExtension.with(Settings.defaults().mapper(harbourMapper()));
 * }
 * }</pre>
 *
 * <p>In a static field it works like the annotation on a class, in an instance field like the
 * annotation on each method. The annotation next to a static field adds its resource lock, and
 * leaves everything else to the field. Without it, a class needs
 * {@code @ResourceLock(InterceptHttp.LOCK)} if tests run in parallel, because JUnit takes no lock
 * for a field; tests of a class without the lock are refused then.
 *
 * <p>With {@link Settings#withoutInterception()}, each test has a Cachette of its own, and any
 * number of tests run in parallel, without a lock.
 *
 * <p>Immutable; all state is in JUnit's store.
 */
public final class CachetteExtension
    implements BeforeAllCallback,
        AfterAllCallback,
        BeforeEachCallback,
        AfterEachCallback,
        InvocationInterceptor,
        ParameterResolver {

  /** Empty for the extension of an annotation. */
  private final Optional<Settings> given;

  /** For JUnit, which creates one for {@link InterceptHttp}. */
  CachetteExtension() {
    this.given = Optional.empty();
  }

  private CachetteExtension(Settings settings) {
    this.given = Optional.of(settings);
  }

  /**
   * Returns an extension with settings.
   *
   * @throws IllegalArgumentException if they are null
   */
  public static CachetteExtension with(Settings settings) {
    if (settings == null) {
      throw new IllegalArgumentException(
          "The settings must not be null. Fix: Settings.defaults().");
    }
    return new CachetteExtension(settings);
  }

  @Override
  public void beforeAll(ExtensionContext context) {
    begin(context);
  }

  @Override
  public void beforeEach(ExtensionContext context) {
    begin(context);
  }

  private void begin(ExtensionContext context) {
    if (isLeftToField(context)) {
      return;
    }
    Settings settings = TestSettings.of(context, given);
    if (!Interval.begin(context, settings)) {
      return;
    }
    Cachette net = Interval.current(context).orElseThrow();
    AnnotatedStubs.load(context, net);
    if (context.getTestMethod().isEmpty()) {
      AnnotatedCassettes.ofClass(context, settings, net);
    } else if (!DynamicTests.isFactory(context)) {
      AnnotatedCassettes.ofTest(context, settings, net);
    }
  }

  @Override
  public void interceptDynamicTest(
      Invocation<Void> invocation, DynamicTestInvocationContext dynamic, ExtensionContext context)
      throws Throwable {
    ExtensionContext factory = DynamicTests.factory(context);
    Optional<Cachette> net = Interval.current(factory);
    if (net.isEmpty() || isLeftToField(factory)) {
      invocation.proceed();
    } else {
      DynamicTests.run(invocation, context, net.get(), () -> TestSettings.of(factory, given));
    }
  }

  @Override
  public void afterEach(ExtensionContext context) {
    if (!isLeftToField(context)) {
      Interval.markFailed(context);
      Interval.end(context);
    }
  }

  @Override
  public void afterAll(ExtensionContext context) {
    if (!isLeftToField(context)) {
      Interval.end(context);
    }
  }

  /** Returns true for the extension of an annotation next to a field, which does everything. */
  private boolean isLeftToField(ExtensionContext context) {
    boolean field = ExtensionFields.exist(context);
    return given.isEmpty() && field;
  }

  @Override
  public boolean supportsParameter(ParameterContext parameter, ExtensionContext context) {
    return parameter.getParameter().getType() == Cachette.class && !isLeftToField(context);
  }

  @Override
  public Cachette resolveParameter(ParameterContext parameter, ExtensionContext context) {
    OtherLoaders.requireSame(context.getRequiredTestClass());
    return Interval.current(context)
        .orElseThrow(
            () ->
                new ParameterResolutionException(
                    "No Cachette is open yet for "
                        + parameter.getDeclaringExecutable()
                        + (TestSettings.of(context, given).interception()
                            ? ". Fix: annotate the class with @InterceptHttp instead of the method,"
                                + " or make the field of the extension static."
                            : ". Fix: use the parameter in a test or in @BeforeEach; without"
                                + " interception each test has its own Cachette.")));
  }
}
