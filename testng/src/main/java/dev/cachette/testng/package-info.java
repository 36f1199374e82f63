/**
 * Intercepts the outgoing HTTP calls of TestNG tests, see {@link
 * dev.cachette.testng.CachetteListener}.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.testng;

import org.jspecify.annotations.NullMarked;
