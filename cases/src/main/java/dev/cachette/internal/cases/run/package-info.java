/**
 * Replays cases against a running application. Not public API: may change in any release.
 *
 * <p>No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.internal.cases.run;

import org.jspecify.annotations.NullMarked;
