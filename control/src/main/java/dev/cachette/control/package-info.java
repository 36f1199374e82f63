/**
 * Reads the calls and changes the stubs of a Cachette over HTTP, for tests in other languages, and
 * shows them on a page.
 */
@NullMarked
package dev.cachette.control;

import org.jspecify.annotations.NullMarked;
