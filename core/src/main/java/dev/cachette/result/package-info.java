/** What a comparison finds, as data: checks, differences, and the stubs that they are about. */
@NullMarked
package dev.cachette.result;

import org.jspecify.annotations.NullMarked;
