/**
 * JSONPath (RFC 9535): its parser and its evaluation over Jackson's tree. Not public API: may
 * change in any release.
 *
 * <p>A parsed query is an immutable value. Nothing here knows of requests or conditions.
 */
@NullMarked
package dev.cachette.internal.jsonpath;

import org.jspecify.annotations.NullMarked;
