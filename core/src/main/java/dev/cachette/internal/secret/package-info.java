/**
 * Decides what is secret, by its place or by its shape: one policy for messages and for files. Not
 * public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.secret;

import org.jspecify.annotations.NullMarked;
