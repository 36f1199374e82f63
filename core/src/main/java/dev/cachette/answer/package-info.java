/**
 * Answers of stubs.
 *
 * <p>An answer is an immutable value: its modifiers return a new one, so that one answer can be
 * used by several stubs and threads. No argument and no result is ever null.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.answer;

import org.jspecify.annotations.NullMarked;
