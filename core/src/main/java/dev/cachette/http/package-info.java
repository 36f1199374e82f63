/**
 * HTTP messages as values: requests and responses (RFC 9110), and the parts of a URI (RFC 3986).
 *
 * <p>Everything is immutable and safe to share between threads. Nothing here knows stubs,
 * connections or bytes on the wire. No argument and no result is null unless stated otherwise.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.http;

import org.jspecify.annotations.NullMarked;
