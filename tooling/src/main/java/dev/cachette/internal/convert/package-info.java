/** Converts recorded exchanges to stubs, as stub files and Java code write them. */
@NullMarked
package dev.cachette.internal.convert;

import org.jspecify.annotations.NullMarked;
