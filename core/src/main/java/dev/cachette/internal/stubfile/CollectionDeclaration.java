package dev.cachette.internal.stubfile;

import java.util.Optional;

/**
 * A collection of a REST service as a file declares it.
 *
 * @param url its URL
 * @param seed the JSON array of what is in it at the start
 * @param identifiedBy the member that identifies an object; empty for the usual one
 */
public record CollectionDeclaration(String url, String seed, Optional<String> identifiedBy) {}
