/**
 * Work on files of stubs and recordings, as the command-line tool and other tools do it: checking,
 * redacting, refreshing and converting them. It has no options and prints nothing.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.tooling;

import org.jspecify.annotations.NullMarked;
