/**
 * YAML 1.2, of which JSON is a part, as trees that know their lines. Not public API: may change in
 * any release.
 */
@NullMarked
package dev.cachette.internal.yaml;

import org.jspecify.annotations.NullMarked;
