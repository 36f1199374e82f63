/**
 * Writes a report of a whole test run: its tests with their calls on a time line, unexpected calls,
 * and which stubs, answers and documented responses no test met.
 *
 * <p>Each JVM of a run writes what happens to a file of its own, while it happens. The last one, or
 * {@link dev.cachette.report.Reports}, makes the report of all of them.
 */
@NullMarked
package dev.cachette.report;

import org.jspecify.annotations.NullMarked;
