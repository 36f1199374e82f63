// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonFactoryBuilder;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;

/**
 * Factories of JSON parsers. Strings can be as long as bodies can, whose size is limited elsewhere:
 * Jackson's own limit of 20 million characters would make a recording unreadable.
 */
public final class JsonStreams {

  private static final JsonFactory STANDARD = builder().build();
  private static final JsonFactory STRICT =
      builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).build();

  private JsonStreams() {}

  /** Returns a factory whose parsers leave the source open. */
  public static JsonFactory leavingSourceOpen() {
    return builder().disable(StreamReadFeature.AUTO_CLOSE_SOURCE).build();
  }

  /** Returns a factory whose parsers refuse an object that has a member twice. */
  public static JsonFactory refusingDuplicates() {
    return STRICT;
  }

  /** Returns a factory for everything else. */
  public static JsonFactory standard() {
    return STANDARD;
  }

  private static JsonFactoryBuilder builder() {
    return new JsonFactoryBuilder()
        .streamReadConstraints(
            StreamReadConstraints.builder().maxStringLength(Integer.MAX_VALUE).build());
  }
}
