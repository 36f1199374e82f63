/**
 * What a stub gives back.
 *
 * <p>An answer is an immutable value: its modifiers return a new one, so that one answer can serve
 * several stubs and threads. No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.answer;

import org.jspecify.annotations.NullMarked;
