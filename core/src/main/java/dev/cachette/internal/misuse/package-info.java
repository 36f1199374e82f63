/** Misuse of the public API. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.misuse;

import org.jspecify.annotations.NullMarked;
