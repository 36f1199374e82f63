// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import java.util.Optional;

/**
 * A REST collection, as declared in a stub file.
 *
 * @param url its URL
 * @param seed a JSON array with its initial objects
 * @param identifiedBy the member that identifies an object; empty for the default
 * @param etags whether its objects have entity tags
 */
public record CollectionDeclaration(
    String url, String seed, Optional<String> identifiedBy, boolean etags) {}
