/**
 * What is said of stub files, which hold stubs as YAML 1.2 or JSON: where one is wrong, and why.
 * Reading them is for {@code Cachette.load}; how one is written is shown by the guide and by its
 * JSON Schema, {@code cachette-stubs.schema.json} at the root of this jar.
 *
 * <p>Nothing is null unless it is marked. Values are immutable and safe to share between threads.
 */
@NullMarked
package dev.cachette.stubfile;

import org.jspecify.annotations.NullMarked;
