/**
 * The entry point: {@link dev.cachette.Cachette}, its settings, and stubs.
 *
 * <p>Everything is thread-safe. No argument and no result is ever null; misuse throws {@link
 * java.lang.IllegalArgumentException} or {@link java.lang.IllegalStateException} at the line that
 * caused it.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette;

import org.jspecify.annotations.NullMarked;
