/**
 * Results of comparisons, as data: checks, differences, and the stubs that they are about.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.result;

import org.jspecify.annotations.NullMarked;
