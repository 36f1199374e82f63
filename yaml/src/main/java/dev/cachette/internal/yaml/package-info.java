/**
 * YAML 1.2, which includes JSON, as trees with line numbers. Not public API: may change in any
 * release.
 */
@NullMarked
package dev.cachette.internal.yaml;

import org.jspecify.annotations.NullMarked;
