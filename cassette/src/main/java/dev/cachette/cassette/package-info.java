/**
 * Cassettes: real exchanges, recorded once into HAR 1.2 files and replayed. See {@link
 * dev.cachette.cassette.CassetteSettings}.
 *
 * <p>No argument and no result is ever null. All values are immutable and safe to share between
 * threads.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.cassette;

import org.jspecify.annotations.NullMarked;
