/** Percent-encoding. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.uri;

import org.jspecify.annotations.NullMarked;
