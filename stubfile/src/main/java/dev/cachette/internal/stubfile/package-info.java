/**
 * Stub files: from text to a tree with line numbers, from the tree to stubs, and from stubs back to
 * text. The result is the same model as in Java; problems are collected, not thrown.
 */
@NullMarked
package dev.cachette.internal.stubfile;

import org.jspecify.annotations.NullMarked;
