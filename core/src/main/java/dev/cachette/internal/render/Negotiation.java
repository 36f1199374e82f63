// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.render;

import dev.cachette.http.Headers;
import dev.cachette.internal.content.ContentEncoding;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Optional;

/** Content negotiation for content encodings (RFC 9110 section 12.5.3). */
final class Negotiation {

  private Negotiation() {}

  /** Returns the supported encoding that it prefers; empty if it accepts none. */
  static Optional<ContentEncoding> accepted(Headers headers) {
    return headers.all("accept-encoding").stream()
        .flatMap(value -> Arrays.stream(value.split(",")))
        .map(Choice::read)
        .filter(choice -> choice.quality > 0 && choice.encoding().isPresent())
        .max(Comparator.comparingDouble(Choice::quality))
        .flatMap(Choice::encoding);
  }

  /** One of the encodings in the header, with its weight. */
  private record Choice(String name, double quality) {

    static Choice read(String text) {
      String[] parts = text.split(";", 2);
      String weight =
          parts.length < 2 ? "1" : parts[1].replaceAll("(?i)\\s*q\\s*=\\s*", "").strip();
      return new Choice(
          parts[0].strip(), weight.matches("[01](\\.[0-9]*)?") ? Double.parseDouble(weight) : 0);
    }

    Optional<ContentEncoding> encoding() {
      return name.equals("*") ? Optional.of(ContentEncoding.GZIP) : ContentEncoding.named(name);
    }
  }
}
