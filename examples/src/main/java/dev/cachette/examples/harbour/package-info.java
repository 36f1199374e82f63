/** The harbour desk of Marrow Bay: ordinary code that calls services and knows nothing of tests. */
@NullMarked
package dev.cachette.examples.harbour;

import org.jspecify.annotations.NullMarked;
