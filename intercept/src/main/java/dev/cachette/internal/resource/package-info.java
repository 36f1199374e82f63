/** Files and resources that answers name. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.resource;

import org.jspecify.annotations.NullMarked;
