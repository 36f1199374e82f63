package dev.cachette.junit;

import dev.cachette.cassette.Recording;
import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Repeatable;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * Answers the calls of a test from a cassette, or records them, as {@link
 * dev.cachette.Cachette#cassette(String)} does. Beside it stands {@link InterceptHttp}, or a {@link
 * CachetteExtension} in a field.
 *
 * <h2>Scope</h2>
 *
 * <p>On a method, and on a class where it has no name, each test has a cassette of its own. On a
 * class with a name, there is one for all of its tests, in play from {@code @BeforeAll} on; each
 * test is answered from its first recording on. A cassette on a method stands in place of one
 * without a name on its class.
 *
 * <h2>Name</h2>
 *
 * <p>As given, a slash making a folder. Where none is given, the class and the method, with the
 * number of the invocation where there are several: {@code
 * dev.cachette.examples.HarbourDeskTest/plansAnArrival-2}.
 *
 * <h2>Failure</h2>
 *
 * <p>What a test records that fails is not kept, and nothing is of a class of which a test fails,
 * unless {@link dev.cachette.cassette.CassetteSettings#keepingOnFailure} says so.
 *
 * <h2>Defaults</h2>
 *
 * <p>Everything else is as {@link dev.cachette.Settings#cassettes} has it.
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

  /** When it records, one at most; by default as the settings have it, which is {@code CREATE}. */
  Recording[] recording() default {};

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
