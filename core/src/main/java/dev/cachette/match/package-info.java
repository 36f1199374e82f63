/**
 * Which request is meant: patterns, and the verdict on a request with its reasons.
 *
 * <p>A pattern is an immutable value, safe to share between threads, stubs and assertions. What is
 * done once a request fits is not decided here. No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.match;

import org.jspecify.annotations.NullMarked;
