/** Texts for people: quoting, cutting, comparing. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.text;

import org.jspecify.annotations.NullMarked;
