/** The choices of a test for an identity provider: faults, rules, algorithms. */
@NullMarked
package dev.cachette.identity.option;

import org.jspecify.annotations.NullMarked;
