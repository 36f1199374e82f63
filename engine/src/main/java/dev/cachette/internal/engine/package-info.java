/**
 * Stubs in scopes, the choice among them, and the log of calls. Not public API: may change in any
 * release.
 *
 * <p>The lock of {@link dev.cachette.internal.engine.Scopes} guards all mutable state.
 */
@NullMarked
package dev.cachette.internal.engine;

import org.jspecify.annotations.NullMarked;
