/** The first answer in a fresh JVM; each class with a main is one JVM. */
@NullMarked
package dev.cachette.benchmarks.startup;

import org.jspecify.annotations.NullMarked;
