/**
 * Results of replaying cases: what an application does differently than when its calls were
 * captured.
 *
 * <p>No argument and no result is ever null. Values are immutable.
 */
@Experimental
@NullMarked
package dev.cachette.replay;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
