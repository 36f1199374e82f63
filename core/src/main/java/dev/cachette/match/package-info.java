/**
 * Request patterns and conditions, and the result of testing a request against them.
 *
 * <p>A pattern is an immutable value, safe to share between threads, stubs and assertions. What
 * happens after a match is decided elsewhere. No argument and no result is ever null.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.match;

import org.jspecify.annotations.NullMarked;
