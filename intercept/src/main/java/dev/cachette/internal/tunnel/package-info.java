/**
 * Leads the calls of another JVM to a recorder: an agent for that JVM, which makes tunnels through
 * the recorder's proxy. Not public API: may change in any release.
 *
 * <p>No argument and no result is ever null.
 */
@NullMarked
package dev.cachette.internal.tunnel;

import org.jspecify.annotations.NullMarked;
