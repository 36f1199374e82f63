/** What a test can choose of an identity provider: faults, rules, algorithms. */
@NullMarked
package dev.cachette.identity.option;

import org.jspecify.annotations.NullMarked;
