/** The choices of a test for an identity provider: faults, rules, algorithms. */
@Experimental
@NullMarked
package dev.cachette.identity.option;

import dev.cachette.Experimental;
import org.jspecify.annotations.NullMarked;
