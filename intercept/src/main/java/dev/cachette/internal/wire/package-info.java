/**
 * The local server: converts bytes to requests, and responses to bytes. It does not decide what is
 * answered. Not public API: may change in any release.
 *
 * <p>Handlers run on the server's threads; {@link dev.cachette.internal.wire.WireServer} itself is
 * thread-safe.
 */
@NullMarked
package dev.cachette.internal.wire;

import org.jspecify.annotations.NullMarked;
