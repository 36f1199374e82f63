/**
 * JSONPath (RFC 9535): parser and evaluation on Jackson's tree. Not public API: may change in any
 * release.
 *
 * <p>A parsed query is an immutable value. Nothing here knows requests or conditions.
 */
@NullMarked
package dev.cachette.internal.jsonpath;

import org.jspecify.annotations.NullMarked;
