/**
 * Templates: texts with expressions that are filled from a request. Not public API: may change in
 * any release.
 */
@NullMarked
package dev.cachette.internal.template;

import org.jspecify.annotations.NullMarked;
