/**
 * The hooks in the JVM, for connections, name look-ups and certificate checks. Not public API: may
 * change in any release.
 *
 * <p>They run on the threads of the code under test, and never wait for another. They do not see
 * what redirected connections carry.
 */
@NullMarked
package dev.cachette.internal.agent;

import org.jspecify.annotations.NullMarked;
