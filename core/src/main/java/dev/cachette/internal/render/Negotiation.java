package dev.cachette.internal.render;

import dev.cachette.http.Headers;
import dev.cachette.internal.content.ContentCoding;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Optional;

/** Which content coding a request accepts (RFC 9110 section 12.5.3). */
final class Negotiation {

  private Negotiation() {}

  /** The coding that it likes best of those we have; empty if it accepts none. */
  static Optional<ContentCoding> accepted(Headers headers) {
    return headers.all("accept-encoding").stream()
        .flatMap(value -> Arrays.stream(value.split(",")))
        .map(Choice::read)
        .filter(choice -> choice.quality > 0 && choice.coding().isPresent())
        .max(Comparator.comparingDouble(Choice::quality))
        .flatMap(Choice::coding);
  }

  /** One of the codings in the header, and how much it is liked. */
  private record Choice(String name, double quality) {

    static Choice read(String text) {
      String[] parts = text.split(";", 2);
      String weight =
          parts.length < 2 ? "1" : parts[1].replaceAll("(?i)\\s*q\\s*=\\s*", "").strip();
      return new Choice(
          parts[0].strip(), weight.matches("[01](\\.[0-9]*)?") ? Double.parseDouble(weight) : 0);
    }

    Optional<ContentCoding> coding() {
      return name.equals("*") ? Optional.of(ContentCoding.GZIP) : ContentCoding.named(name);
    }
  }
}
