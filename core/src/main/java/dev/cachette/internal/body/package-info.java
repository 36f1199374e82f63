/** Kinds of bodies: recognised, and their values listed and replaced, without any HTTP. */
@org.jspecify.annotations.NullMarked
package dev.cachette.internal.body;
