// SPDX-License-Identifier: Apache-2.0
/**
 * Stubs in scopes, the choice among them, and the log of calls. Not public API: may change in any
 * release.
 *
 * <p>The lock of {@link dev.cachette.internal.stub.Scopes} guards all mutable state.
 */
@NullMarked
package dev.cachette.internal.stub;

import org.jspecify.annotations.NullMarked;
