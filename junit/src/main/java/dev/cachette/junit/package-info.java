/**
 * Cachette in JUnit 5: {@link dev.cachette.junit.InterceptHttp} on a class or method, or {@link
 * dev.cachette.junit.CachetteExtension} in a field.
 *
 * <p>State is in JUnit's own store, and ends with its class or test. No argument and no result is
 * ever null.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.junit;

import org.jspecify.annotations.NullMarked;
