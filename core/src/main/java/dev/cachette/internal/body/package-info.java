/**
 * Kinds of bodies. Whatever depends on the kind of a body is here, one class per kind: recognising,
 * comparing, listing changes, escaping, and showing it. Values within text are listed and replaced
 * by {@code internal.scan}. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.body;

import org.jspecify.annotations.NullMarked;
