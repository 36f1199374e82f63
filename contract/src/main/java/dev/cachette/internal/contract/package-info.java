/**
 * Contracts: their clauses, the shape of responses, merging, and the comparison of real responses
 * with them. No value is null unless it is marked. Values are immutable.
 */
@NullMarked
package dev.cachette.internal.contract;

import org.jspecify.annotations.NullMarked;
