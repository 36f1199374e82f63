/**
 * Kinds of bodies: recognised, and their values listed and replaced, without any HTTP. Not public
 * API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.body;

import org.jspecify.annotations.NullMarked;
