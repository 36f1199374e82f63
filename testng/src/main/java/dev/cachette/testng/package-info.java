// SPDX-License-Identifier: Apache-2.0
/**
 * Intercepts the outgoing HTTP calls of TestNG tests, see {@link
 * dev.cachette.testng.CachetteListener}.
 */
@NullMarked
package dev.cachette.testng;

import org.jspecify.annotations.NullMarked;
