/**
 * Descriptions of services, OpenAPI 3.0 and 3.1: what they allow a caller to send and the service
 * to answer, and the examples that they give. No reading of files, no stubs. Not public API: may
 * change in any release.
 */
@NullMarked
package dev.cachette.internal.openapi;

import org.jspecify.annotations.NullMarked;
