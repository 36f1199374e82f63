/**
 * In-memory certificates, and the server side of TLS. Not public API: may change in any release.
 *
 * <p>Thread-safe; keys live as long as the session, and are never written to disk.
 */
@NullMarked
package dev.cachette.internal.tls;

import org.jspecify.annotations.NullMarked;
