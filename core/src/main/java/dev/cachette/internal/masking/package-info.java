/** Masks the secrets of a request in texts about it. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.masking;

import org.jspecify.annotations.NullMarked;
