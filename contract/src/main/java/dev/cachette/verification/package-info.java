/**
 * Results of contracts: states of providers, results of clauses, and which versions work together.
 * Values are immutable; no argument and no result is null.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.verification;

import org.jspecify.annotations.NullMarked;
