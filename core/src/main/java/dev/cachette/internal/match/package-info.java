/**
 * Request lines: parsing and matching. Not public API: may change in any release.
 *
 * <p>Everything is immutable and safe to share between threads.
 */
@NullMarked
package dev.cachette.internal.match;

import org.jspecify.annotations.NullMarked;
