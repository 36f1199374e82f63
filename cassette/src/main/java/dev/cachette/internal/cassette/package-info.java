/**
 * Reading, writing, matching and redacting cassettes. Not public API: may change in any release.
 *
 * <p>No argument and no result is ever null. Not thread-safe unless stated otherwise.
 */
@NullMarked
package dev.cachette.internal.cassette;

import org.jspecify.annotations.NullMarked;
