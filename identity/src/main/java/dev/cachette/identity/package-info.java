/**
 * A stand-in for an identity provider: OpenID Connect and OAuth 2 offline, with real signatures.
 *
 * <p>All types are safe to share between threads. Methods throw {@link IllegalArgumentException} if
 * an argument is null.
 */
@Experimental
@NullMarked
package dev.cachette.identity;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
