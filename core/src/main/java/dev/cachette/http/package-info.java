/**
 * HTTP messages as values: what was asked and what was answered (RFC 9110), and the parts of a URI
 * (RFC 3986).
 *
 * <p>Everything here is immutable and safe to share between threads. Nothing here knows of stubs,
 * connections or bytes on the wire. No argument and no result is ever null unless it says so.
 */
@NullMarked
package dev.cachette.http;

import org.jspecify.annotations.NullMarked;
