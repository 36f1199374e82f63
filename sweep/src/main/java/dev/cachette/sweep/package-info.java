// SPDX-License-Identifier: Apache-2.0
/**
 * The fault sweep: a scenario that passes is run again with each fault at each of its calls, and a
 * table says what the code did. Begin with {@link dev.cachette.sweep.FaultSweep}.
 *
 * <p>Nothing is null unless it is marked. Values are immutable; a sweep is used by one thread.
 *
 * @since 0.1
 */
@Experimental
@NullMarked
package dev.cachette.sweep;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
