/** Reading and writing JSON. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.json;

import org.jspecify.annotations.NullMarked;
