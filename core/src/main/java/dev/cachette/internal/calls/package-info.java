/**
 * The source of the call log, and what the implementation needs of public call types. Not public
 * API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.calls;

import org.jspecify.annotations.NullMarked;
