/**
 * The calls that were made, and the assertions on them.
 *
 * <p>A call is an immutable value; {@link dev.cachette.calls.Calls} is a live view that any thread
 * may use. A failed assertion is an {@link org.opentest4j.AssertionFailedError}; a misuse is an
 * {@link java.lang.IllegalArgumentException}. No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.calls;

import org.jspecify.annotations.NullMarked;
