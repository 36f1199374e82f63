// SPDX-License-Identifier: Apache-2.0
/**
 * The fields of files in YAML or JSON: which keys they have, how these are read, with all problems
 * together, and their JSON Schema. What the keys are is said in the packages of the files.
 */
@NullMarked
package dev.cachette.internal.fields;

import org.jspecify.annotations.NullMarked;
