/**
 * Cases as files: reading, finding, naming, and writing them so that what has not changed stays as
 * it is. Not public API: may change in any release.
 *
 * <p>No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.internal.cases.file;

import org.jspecify.annotations.NullMarked;
