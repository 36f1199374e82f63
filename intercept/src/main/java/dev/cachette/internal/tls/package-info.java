/**
 * Certificates made in memory, and the server's side of TLS. Not public API: may change in any
 * release.
 *
 * <p>Safe for use by several threads; keys live as long as the session, and never touch a disk.
 */
@NullMarked
package dev.cachette.internal.tls;

import org.jspecify.annotations.NullMarked;
