/**
 * GraphQL over HTTP: the operations that a request carries. Needs graphql-java, which is on the
 * class path only where the user put it. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.graphql;

import org.jspecify.annotations.NullMarked;
