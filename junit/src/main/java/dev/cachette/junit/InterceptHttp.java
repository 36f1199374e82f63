package dev.cachette.junit;

import dev.cachette.UnusedStubs;
import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.parallel.ResourceLock;

/**
 * Intercepts the outgoing HTTP calls of the JVM while a test class, or one test, runs.
 *
 * <h2>What a test gets</h2>
 *
 * <p>A parameter of type {@link dev.cachette.Cachette} in tests and life-cycle methods.
 *
 * <h2>Scope</h2>
 *
 * <p>On a class, interception begins before its {@code @BeforeAll} methods and ends after its
 * {@code @AfterAll} methods; nested classes are included. Stubs made in {@code @BeforeAll} are the
 * baseline of every test, and answer each test from their first answer on. All other stubs, and the
 * calls, are gone after each test. On a method, all of it is for that one test.
 *
 * <h2>Failure</h2>
 *
 * <p>A test that made a call which no stub answers fails at its end, whatever the code under test
 * did with the answer; calls made in {@code @BeforeAll} or {@code @AfterAll} fail the class.
 *
 * <h2>Parallel execution</h2>
 *
 * <p>Classes and tests with this annotation never run at the same time in one JVM: the annotation
 * carries a resource lock, {@link #LOCK}. Others run beside them, and their calls are intercepted
 * too; give those that make real calls the same lock.
 *
 * <h2>Unused stubs</h2>
 *
 * <p>Stubs that no call used are named in a warning at the end of the test, those of the baseline
 * at the end of the class; {@link #unusedStubs} makes them a failure, or nothing.
 *
 * <h2>Settings</h2>
 *
 * <p>{@link dev.cachette.Settings#defaults()}. For others use {@link CachetteExtension} in place of
 * this annotation.
 */
@Documented
@Inherited
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
@ResourceLock(InterceptHttp.LOCK)
@ExtendWith(CachetteExtension.class)
public @interface InterceptHttp {

  /** The resource that intercepting tests lock: the connections of the JVM. */
  String LOCK = "dev.cachette.connections";

  /** Returns what is done about stubs that no call used. Counts where interception begins. */
  UnusedStubs unusedStubs() default UnusedStubs.WARN;
}
