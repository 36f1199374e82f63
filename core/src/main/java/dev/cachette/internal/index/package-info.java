/**
 * Finds the request patterns that may match a request, or that cover another pattern, among many.
 * Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.index;

import org.jspecify.annotations.NullMarked;
