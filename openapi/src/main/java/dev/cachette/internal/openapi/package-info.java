/**
 * API descriptions, OpenAPI 3.0 to 3.2: checks of requests and responses, and their examples. No
 * file access, no stubs. Not public API: may change in any release.
 */
@NullMarked
package dev.cachette.internal.openapi;

import org.jspecify.annotations.NullMarked;
