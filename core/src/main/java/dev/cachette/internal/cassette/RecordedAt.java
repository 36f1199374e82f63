package dev.cachette.internal.cassette;

import dev.cachette.cassette.Exchange;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.Optional;

/** When a cassette was last recorded: as the file says, else from its exchanges. */
public final class RecordedAt {

  static final String MEMBER = "_recordedAt";

  private RecordedAt() {}

  /** Returns the instant; empty if it has no exchanges. */
  public static Optional<Instant> of(RecordedExchanges recordings) {
    String written = recordings.index().log().path(MEMBER).asText("");
    try {
      return Optional.of(OffsetDateTime.parse(written).toInstant());
    } catch (DateTimeParseException ofAnotherProgram) {
      return recordings.stream().map(Exchange::started).max(Comparator.naturalOrder());
    }
  }
}
