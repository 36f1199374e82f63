// SPDX-License-Identifier: Apache-2.0
/**
 * Answers of stubs.
 *
 * <p>An answer is an immutable value: its modifiers return a new one, so that one answer can be
 * used by several stubs and threads. No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.answer;

import org.jspecify.annotations.NullMarked;
