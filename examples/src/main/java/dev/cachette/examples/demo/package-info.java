/** The demo: a complete arrival with stubs, printed as a short account. */
@NullMarked
package dev.cachette.examples.demo;

import org.jspecify.annotations.NullMarked;
