/** Benchmarks, always as a ratio to something else measured in the same run. */
@NullMarked
package dev.cachette.benchmarks;

import org.jspecify.annotations.NullMarked;
