/** Converts curl commands, in the quoting of several shells, to stubs. */
@NullMarked
package dev.cachette.internal.curl;

import org.jspecify.annotations.NullMarked;
