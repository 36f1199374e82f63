/** The first answer in a new JVM; each class with a main method is one JVM. */
@NullMarked
package dev.cachette.benchmarks.startup;

import org.jspecify.annotations.NullMarked;
