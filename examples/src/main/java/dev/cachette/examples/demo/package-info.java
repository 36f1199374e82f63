/** The demo: a complete arrival against stubs, told as a short account. */
@NullMarked
package dev.cachette.examples.demo;

import org.jspecify.annotations.NullMarked;
