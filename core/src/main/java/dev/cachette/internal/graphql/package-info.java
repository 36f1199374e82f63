/**
 * GraphQL over HTTP: the operations of a request. Needs graphql-java, which users add to the class
 * path themselves. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.graphql;

import org.jspecify.annotations.NullMarked;
