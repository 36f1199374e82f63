/**
 * Explanations as text. Not public API: may change in any release.
 *
 * <p>Pure functions from values to text. Secrets in headers are masked before they get here, by
 * {@link dev.cachette.http.Header#toString()}.
 */
@NullMarked
package dev.cachette.internal.explain;

import org.jspecify.annotations.NullMarked;
