/**
 * Cachette in JUnit 5: {@link dev.cachette.junit.InterceptHttp} on a class or method, or {@link
 * dev.cachette.junit.CachetteExtension} in a field where settings are wanted.
 *
 * <p>State lives in JUnit's own store and goes with the class or test it belongs to. No argument
 * and no result is ever null.
 */
@NullMarked
package dev.cachette.junit;

import org.jspecify.annotations.NullMarked;
