/**
 * The local server: bytes become a request, a response becomes bytes. What is answered is not
 * decided here. Not public API: may change in any release.
 *
 * <p>Handlers run on the server's one thread; {@link dev.cachette.internal.wire.WireServer} itself
 * may be used from any.
 */
@NullMarked
package dev.cachette.internal.wire;

import org.jspecify.annotations.NullMarked;
