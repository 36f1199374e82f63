// SPDX-License-Identifier: Apache-2.0
/** Results of comparisons, as data: checks, differences, and the stubs that they are about. */
@NullMarked
package dev.cachette.result;

import org.jspecify.annotations.NullMarked;
