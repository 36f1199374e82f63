/**
 * A collection of JSON objects that is created, read, changed and deleted by requests. Not public
 * API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.collection;

import org.jspecify.annotations.NullMarked;
