/** Files and resources of stubs and answers. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.resource;

import org.jspecify.annotations.NullMarked;
