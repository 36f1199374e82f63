/**
 * Stubs as immutable data, built alike by Java code and stub files. What changes while calls arrive
 * is not here, but in {@code internal.engine}. Not API.
 */
@NullMarked
package dev.cachette.internal.model;

import org.jspecify.annotations.NullMarked;
