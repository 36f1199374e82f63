/**
 * The command-line tool: one class per command, and what they share. Results go to standard output,
 * everything else to standard error.
 */
@NullMarked
package dev.cachette.cli;

import org.jspecify.annotations.NullMarked;
