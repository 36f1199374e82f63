// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import dev.cachette.internal.text.JsonStreams;
import java.io.IOException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.Optional;
import java.util.stream.IntStream;

/** When a cassette was last recorded: as the file says, else from its exchanges. */
public final class RecordedAt {

  static final String MEMBER = "_recordedAt";

  private static final JsonFactory FACTORY = JsonStreams.leavingSourceOpen();

  private RecordedAt() {}

  /** Returns the instant; empty if it has no exchanges. */
  public static Optional<Instant> of(RecordedExchanges recordings) {
    String written = recordings.index().log().path(MEMBER).asText("");
    try {
      return Optional.of(OffsetDateTime.parse(written).toInstant());
    } catch (DateTimeParseException ofAnotherProgram) {
      return IntStream.range(0, recordings.size())
          .mapToObj(recordings::text)
          .map(RecordedAt::started)
          .flatMap(Optional::stream)
          .max(Comparator.naturalOrder());
    }
  }

  /** Reads only the time of an entry; most files begin with it. */
  private static Optional<Instant> started(String entry) {
    try (JsonParser parser = FACTORY.createParser(entry)) {
      parser.nextToken();
      while (parser.nextToken() == JsonToken.FIELD_NAME) {
        boolean found = parser.currentName().equals("startedDateTime");
        parser.nextToken();
        if (found) {
          return Optional.of(OffsetDateTime.parse(parser.getText()).toInstant());
        }
        parser.skipChildren();
      }
    } catch (IOException | DateTimeParseException malformed) {
      // Whoever reads the exchange says so.
    }
    return Optional.empty();
  }
}
