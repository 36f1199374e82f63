// SPDX-License-Identifier: Apache-2.0
/**
 * The results of a fault sweep: its faults, its runs, and what was wrong, as values and as text.
 *
 * <p>Nothing is null unless it is marked. Values are immutable and safe to share between threads.
 *
 * @since 0.1
 */
@Experimental
@NullMarked
package dev.cachette.sweep.result;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
