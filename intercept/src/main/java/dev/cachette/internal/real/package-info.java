/**
 * The way to real services, past the hooks. Not public API: may change in any release.
 *
 * <p>Calls wait on the thread that makes them.
 */
@NullMarked
package dev.cachette.internal.real;

import org.jspecify.annotations.NullMarked;
