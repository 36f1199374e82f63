/**
 * Stub files: from text to a tree that knows its lines, from the tree to stubs, and from stubs back
 * to text. What is read is the same model that Java makes; all problems are collected, none is
 * thrown.
 */
@NullMarked
package dev.cachette.internal.stubfile;

import org.jspecify.annotations.NullMarked;
