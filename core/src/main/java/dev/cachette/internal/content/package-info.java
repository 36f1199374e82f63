/** Body formats: content encodings, forms, multipart. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.content;

import org.jspecify.annotations.NullMarked;
