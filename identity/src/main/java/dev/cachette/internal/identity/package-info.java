/** The endpoints of an identity provider. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.identity;

import org.jspecify.annotations.NullMarked;
