// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import java.util.function.Supplier;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.parallel.ResourceLock;

/**
 * Intercepts the outgoing HTTP calls of the JVM while a test class, or one test, runs.
 *
 * <h2>Parameters</h2>
 *
 * <p>Tests and life-cycle methods can take a parameter of type {@link dev.cachette.Cachette}.
 *
 * <h2>Scope</h2>
 *
 * <p>On a class, interception begins before its {@code @BeforeAll} methods and ends after its
 * {@code @AfterAll} methods; nested classes are included. Stubs declared in {@code @BeforeAll} are
 * the baseline of every test, and start each test with their first answer. All other stubs, and the
 * calls, are removed after each test. Each dynamic test of a {@code @TestFactory} has a scope of
 * its own as well. On a method, everything is for that one test.
 *
 * <h2>Failure</h2>
 *
 * <p>A test with a call that no stub answers fails at its end, whatever the code under test does
 * with the answer; such calls in {@code @BeforeAll} or {@code @AfterAll} fail the class.
 *
 * <h2>Parallel execution</h2>
 *
 * <p>Classes and tests with this annotation never run at the same time in one JVM: the annotation
 * has a resource lock, {@link #LOCK}. Other tests run in parallel to them, and their calls are
 * intercepted too; give tests that make real calls the same lock.
 *
 * <h2>Unused stubs</h2>
 *
 * <p>Stubs that no call used are reported at the end of the test that declares them; those of the
 * baseline, and of set-up methods such as {@code @BeforeEach}, at the end of the class, if no test
 * used the stub declared at that line. {@link #unusedStubs} makes them a failure, or ignores them.
 *
 * <h2>Settings</h2>
 *
 * <p>{@link Settings#defaults()}, unless {@link #settings} names a class that supplies others, or
 * the test class has a static field of type {@link Settings}, or there is a {@link
 * CachetteExtension} in a static field. Settings that none of them sets are taken from JUnit's
 * configuration parameters, see {@link Settings#withProperties}: {@code cachette.unusedStubs=FAIL}
 * in {@code junit-platform.properties}, for example.
 */
@Documented
@Inherited
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
@ResourceLock(InterceptHttp.LOCK)
@ExtendWith(CachetteExtension.class)
public @interface InterceptHttp {

  /** The resource lock of tests that intercept: the connections of the JVM. */
  String LOCK = "dev.cachette.connections";

  /** The effect of unused stubs, one value at most; by default as in the settings. */
  UnusedStubs[] unusedStubs() default {};

  /** A class with a constructor without parameters that supplies the settings. */
  Class<? extends Supplier<Settings>> settings() default None.class;

  /** Supplies no settings: those of a static field, or the defaults, apply. */
  final class None implements Supplier<Settings> {

    private None() {}

    @Override
    public Settings get() {
      return Settings.defaults();
    }
  }
}
