/**
 * How cassettes are read, written, chosen from, and kept free of secrets. Not public API: may
 * change in any release.
 *
 * <p>No argument and no result is ever null. Nothing here may be shared between threads, unless it
 * says so.
 */
@NullMarked
package dev.cachette.internal.cassette;

import org.jspecify.annotations.NullMarked;
