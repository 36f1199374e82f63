/**
 * Cases: tests made from the traffic of a running application. {@link dev.cachette.cases.Capture}
 * writes them, {@link dev.cachette.cases.Cases} replays them against the application.
 *
 * <p>No argument and no result is ever null. Values are immutable.
 */
@Experimental
@NullMarked
package dev.cachette.cases;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
