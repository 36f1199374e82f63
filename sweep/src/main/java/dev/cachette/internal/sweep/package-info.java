// SPDX-License-Identifier: Apache-2.0
/**
 * The runs of a fault sweep: what is given to the calls, what is observed, how it is judged and
 * shown.
 */
@NullMarked
package dev.cachette.internal.sweep;

import org.jspecify.annotations.NullMarked;
