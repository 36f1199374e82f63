/**
 * Problems of stub files, which contain stubs as YAML 1.2 or JSON. {@code Cachette.load} reads
 * them; the guide and the JSON Schema, {@code cachette-stubs.schema.json} at the root of this jar,
 * describe their format.
 *
 * <p>Nothing is null unless it is marked. Values are immutable and safe to share between threads.
 *
 * @since 0.1
 */
@NullMarked
package dev.cachette.stubfile;

import org.jspecify.annotations.NullMarked;
