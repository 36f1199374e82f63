package dev.cachette.junit;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolutionException;
import org.junit.jupiter.api.extension.ParameterResolver;
import org.junit.platform.commons.support.AnnotationSupport;

/**
 * What {@link InterceptHttp} does, with settings:
 *
 * <pre>{@code
 * @ResourceLock(InterceptHttp.LOCK)
 * class BerthDeskTest {
 *
 *   @RegisterExtension
 *   static final CachetteExtension CACHETTE =
 *       CachetteExtension.with(Settings.defaults().mapper(harbourMapper()));
 * }
 * }</pre>
 *
 * <p>In a static field it works as the annotation does on a class, in an instance field as the
 * annotation does on each method. JUnit takes no lock for a field, so where tests run in parallel
 * the class needs the {@code @ResourceLock} shown; without it, the tests of such a class are
 * refused.
 *
 * <p>With {@link Settings#withoutInterception()}, each test has a Cachette of its own, and any
 * number of tests run at the same time, without a lock.
 *
 * <p>Immutable; all state is kept by JUnit.
 */
public final class CachetteExtension
    implements BeforeAllCallback,
        AfterAllCallback,
        BeforeEachCallback,
        AfterEachCallback,
        ParameterResolver {

  private final Settings settings;

  /** For JUnit, which makes one where {@link InterceptHttp} stands. */
  CachetteExtension() {
    this(Settings.defaults());
  }

  private CachetteExtension(Settings settings) {
    this.settings = settings;
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
    if (Interval.begin(context, settings(context))) {
      Interval.current(context)
          .ifPresent(
              net -> {
                AnnotatedStubs.load(context, net);
                AnnotatedCassettes.ofClass(context, settings, net);
              });
    }
  }

  @Override
  public void beforeEach(ExtensionContext context) {
    if (Interval.begin(context, settings(context))) {
      Interval.current(context)
          .ifPresent(
              net -> {
                AnnotatedStubs.load(context, net);
                AnnotatedCassettes.ofTest(context, settings, net);
              });
    }
  }

  @Override
  public void afterEach(ExtensionContext context) {
    Interval.remark(context);
    Interval.end(context);
  }

  @Override
  public void afterAll(ExtensionContext context) {
    Interval.end(context);
  }

  /** Returns the settings, with what the annotation says, if this is the extension of one. */
  private Settings settings(ExtensionContext context) {
    return AnnotationSupport.findAnnotation(context.getElement(), InterceptHttp.class)
        .map(annotation -> settings.unusedStubs(annotation.unusedStubs()))
        .orElse(settings);
  }

  @Override
  public boolean supportsParameter(ParameterContext parameter, ExtensionContext context) {
    return parameter.getParameter().getType() == Cachette.class;
  }

  @Override
  public Cachette resolveParameter(ParameterContext parameter, ExtensionContext context) {
    return Interval.current(context)
        .orElseThrow(
            () ->
                new ParameterResolutionException(
                    "No Cachette is open yet for "
                        + parameter.getDeclaringExecutable()
                        + (settings.interception()
                            ? ". Fix: annotate the class with @InterceptHttp, not the method; or "
                                + "make the field of the extension static."
                            : ". Fix: take it in a test or in @BeforeEach; without interception "
                                + "each test has one of its own.")));
  }
}
