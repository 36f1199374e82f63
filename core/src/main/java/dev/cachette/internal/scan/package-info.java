/**
 * Finds and replaces values within the text of bodies: members of JSON, elements of XML, fields of
 * forms. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.scan;

import org.jspecify.annotations.NullMarked;
