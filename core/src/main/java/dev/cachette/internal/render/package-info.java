/**
 * Renders responses for one request: content encodings, conditional and range requests. Not public
 * API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.render;

import org.jspecify.annotations.NullMarked;
