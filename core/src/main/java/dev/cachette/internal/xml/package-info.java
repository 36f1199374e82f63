/** XML: safe parsing, comparison, XPath 1.0. Not public API: may change in any release. */
@NullMarked
package dev.cachette.internal.xml;

import org.jspecify.annotations.NullMarked;
