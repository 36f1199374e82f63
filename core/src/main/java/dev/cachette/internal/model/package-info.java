// SPDX-License-Identifier: Apache-2.0
/**
 * Stubs as immutable data, built alike by Java code and stub files. What changes while calls arrive
 * is not here, but in {@code internal.stub}. Not API.
 */
@NullMarked
package dev.cachette.internal.model;

import org.jspecify.annotations.NullMarked;
