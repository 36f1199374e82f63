/**
 * The entry: {@link dev.cachette.Cachette}, its settings, and the stubs it begins.
 *
 * <p>All of it may be used from any thread. No argument and no result is ever null; a misuse throws
 * {@link java.lang.IllegalArgumentException} or {@link java.lang.IllegalStateException} at the line
 * that made it.
 */
@NullMarked
package dev.cachette;

import org.jspecify.annotations.NullMarked;
