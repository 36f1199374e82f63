/**
 * Cassettes: true exchanges, recorded once into HAR 1.2 files and replayed. {@link
 * dev.cachette.cassette.CassetteSettings} says how.
 *
 * <p>No argument and no result is ever null. All values here are immutable, and may be shared
 * between threads.
 */
@NullMarked
package dev.cachette.cassette;

import org.jspecify.annotations.NullMarked;
