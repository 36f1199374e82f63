// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * Loads stub files, like {@link dev.cachette.Cachette#load}. Requires {@link InterceptHttp}, or a
 * {@link CachetteExtension} in a field.
 *
 * <h2>Scope</h2>
 *
 * <p>On a class, the stubs are the baseline of all its tests, loaded before {@code @BeforeAll}; on
 * a method, they are for that test only, and win over the baseline.
 *
 * <h2>Names</h2>
 *
 * <p>{@code harbour} is {@code src/test/stubs/harbour.stubs.yaml}, or a folder, or a resource on
 * the classpath; {@link dev.cachette.Settings#stubFolder} changes the folder.
 *
 * <h2>Failure</h2>
 *
 * <p>If a file is missing or invalid, the tests fail with all problems, each with line and column.
 */
@Documented
@Inherited
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
@ExtendWith(AnnotationCheck.class)
public @interface Stubs {

  /** The names of the files; at least one. */
  String[] value();
}
