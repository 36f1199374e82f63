/**
 * How answers are delivered and timed, and what the implementation needs of public answers. Not
 * public API: may change in any release.
 *
 * <p>Everything is immutable and safe to share between threads.
 */
@NullMarked
package dev.cachette.internal.answer;

import org.jspecify.annotations.NullMarked;
