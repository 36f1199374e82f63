/**
 * Cassettes as files: found by name, opened, and written so that there is always a whole one. Not
 * public API: may change in any release.
 *
 * <p>No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.internal.disk;

import org.jspecify.annotations.NullMarked;
