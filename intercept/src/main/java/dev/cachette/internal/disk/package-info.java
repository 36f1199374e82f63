/**
 * Cassettes as files: finding, opening, and replacing them atomically. Not public API: may change
 * in any release.
 *
 * <p>No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.internal.disk;

import org.jspecify.annotations.NullMarked;
