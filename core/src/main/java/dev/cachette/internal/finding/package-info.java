/** Renders findings as text, in one place. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.finding;

import org.jspecify.annotations.NullMarked;
