/**
 * Stores of contracts: a folder, a git repository or an HTTP server. A store holds facts, each a
 * file that is written once, so that concurrent publishing loses nothing. No value is null unless
 * it is marked.
 */
@NullMarked
package dev.cachette.internal.contract.store;

import org.jspecify.annotations.NullMarked;
