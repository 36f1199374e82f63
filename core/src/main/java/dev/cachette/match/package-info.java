// SPDX-License-Identifier: Apache-2.0
/**
 * Request patterns and conditions, and the result of testing a request against them.
 *
 * <p>A pattern is an immutable value, safe to share between threads, stubs and assertions. What
 * happens after a match is decided elsewhere. No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.match;

import org.jspecify.annotations.NullMarked;
