/** Access from inside to members that users do not see. Not public API: may change at any time. */
@NullMarked
package dev.cachette.internal.access;

import org.jspecify.annotations.NullMarked;
