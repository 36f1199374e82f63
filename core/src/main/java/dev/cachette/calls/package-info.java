/**
 * The log of calls, and assertions on it.
 *
 * <p>A call is an immutable value; {@link dev.cachette.calls.Calls} is a live, thread-safe view. A
 * failed assertion is an {@link org.opentest4j.AssertionFailedError}; misuse is an {@link
 * java.lang.IllegalArgumentException}. No argument and no result is ever null.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.calls;

import org.jspecify.annotations.NullMarked;
