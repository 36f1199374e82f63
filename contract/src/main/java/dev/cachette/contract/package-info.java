/**
 * Contracts: what a consumer needs of a provider, written by the passing tests of the consumer, and
 * verified against the provider. Start at {@link dev.cachette.contract.Contracts}.
 *
 * <p>No argument and no result is null, unless it is marked {@code @Nullable}. Values are
 * immutable; other classes say how they can be shared between threads.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.contract;

import org.jspecify.annotations.NullMarked;
