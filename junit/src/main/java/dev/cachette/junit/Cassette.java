// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.cassette.RecordingMode;
import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Repeatable;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * Answers the calls of a test from a cassette, or records them, like {@link
 * dev.cachette.Cachette#cassette(String)}. Requires {@link InterceptHttp}, or a {@link
 * CachetteExtension} in a field.
 *
 * <h2>Scope</h2>
 *
 * <p>On a method, and on a class without a name, each test has a cassette of its own. On a class
 * with a name, all its tests share one, active from {@code @BeforeAll} on; each test starts again
 * with its first exchange. A cassette on a method replaces an unnamed one on its class.
 *
 * <h2>Name</h2>
 *
 * <p>As given; a slash makes a folder. By default, the class and the method, with the number of the
 * invocation if there are several: {@code dev.cachette.examples.HarbourDeskTest/plansAnArrival-2}.
 *
 * <h2>Failure</h2>
 *
 * <p>What a failed test has recorded is discarded, and for a class, everything if one of its tests
 * fails, unless {@link dev.cachette.cassette.CassetteSettings#keepingOnFailure} is set.
 *
 * <h2>Defaults</h2>
 *
 * <p>Everything else is as in {@link dev.cachette.Settings#cassettes}.
 */
@Documented
@Inherited
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
@Repeatable(Cassette.All.class)
@ExtendWith(AnnotationCheck.class)
public @interface Cassette {

  /** The name; by default that of the class and the test. */
  String value() default "";

  /** The recording mode, at most one; by default that of the settings, which is {@code CREATE}. */
  RecordingMode[] mode() default {};

  /** The hosts that it is for; by default all. */
  String[] hosts() default {};

  /** Several cassettes, each for its hosts. */
  @Documented
  @Inherited
  @Target({ElementType.TYPE, ElementType.METHOD})
  @Retention(RetentionPolicy.RUNTIME)
  @ExtendWith(AnnotationCheck.class)
  @interface All {

    /** The cassettes. */
    Cassette[] value();
  }
}
