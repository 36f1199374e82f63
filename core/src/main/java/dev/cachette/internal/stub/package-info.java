/**
 * Stubs in their scopes, the choice among them, and what is noted of every call. Not public API:
 * may change in any release.
 *
 * <p>{@link dev.cachette.internal.stub.Scopes} guards all mutable state with its own lock.
 */
@NullMarked
package dev.cachette.internal.stub;

import org.jspecify.annotations.NullMarked;
