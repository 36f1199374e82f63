/**
 * Request lines, parsed and held against requests. Not public API: may change in any release.
 *
 * <p>Immutable throughout, safe to share between threads.
 */
@NullMarked
package dev.cachette.internal.match;

import org.jspecify.annotations.NullMarked;
