/**
 * In-memory collections of JSON objects, which requests create, read, update and delete. Not public
 * API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.collection;

import org.jspecify.annotations.NullMarked;
