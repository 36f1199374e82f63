/**
 * Captures cases: which outgoing call belongs to which incoming one, and when a case is written.
 * Not public API: may change in any release.
 *
 * <p>No argument and no result is ever null. Everything here is thread-safe.
 */
@NullMarked
package dev.cachette.internal.cases.capture;

import org.jspecify.annotations.NullMarked;
