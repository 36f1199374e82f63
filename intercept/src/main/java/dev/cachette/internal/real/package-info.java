/**
 * Calls to real services, bypassing the hooks. Not public API: may change in any release.
 *
 * <p>Calls block the calling thread.
 */
@NullMarked
package dev.cachette.internal.real;

import org.jspecify.annotations.NullMarked;
