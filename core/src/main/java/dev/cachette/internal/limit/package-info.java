/**
 * The limit on the time that deciding about a call may take. Not public API: may change in any
 * release.
 */
@NullMarked
package dev.cachette.internal.limit;

import org.jspecify.annotations.NullMarked;
