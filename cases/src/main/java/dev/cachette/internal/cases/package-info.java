/**
 * Cases: their files, what varies in them by nature, and the comparison of real calls with them. No
 * sockets, threads or files here; see {@link dev.cachette.cases}. Not public API: may change in any
 * release.
 *
 * <p>No argument and no result is ever null. Values are immutable.
 */
@NullMarked
package dev.cachette.internal.cases;

import org.jspecify.annotations.NullMarked;
