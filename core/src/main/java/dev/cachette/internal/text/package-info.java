/**
 * Texts as a person reads them: quoted, cut, compared. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.text;

import org.jspecify.annotations.NullMarked;
