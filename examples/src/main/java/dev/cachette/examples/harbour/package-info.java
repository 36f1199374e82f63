/**
 * The harbour desk of Marrow Bay: ordinary code that calls services and knows nothing about tests.
 */
@NullMarked
package dev.cachette.examples.harbour;

import org.jspecify.annotations.NullMarked;
