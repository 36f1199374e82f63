/**
 * The hooks in the JVM: what a connection, a name look-up and a certificate check ask first. Not
 * public API: may change in any release.
 *
 * <p>Runs on the threads of the code under test, and never waits for another. What arrives on the
 * connections that are turned is not seen here.
 */
@NullMarked
package dev.cachette.internal.agent;

import org.jspecify.annotations.NullMarked;
