// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.github.curiousoddman.rgxgen.RgxGen;
import com.github.curiousoddman.rgxgen.config.RgxGenOption;
import com.github.curiousoddman.rgxgen.config.RgxGenProperties;
import dev.cachette.internal.limit.LimitedRegex;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Pattern;

/** Generates strings for a schema: of its pattern, of its format, and of its length. */
final class SampleText {

  /** So many strings of a pattern are tried, until one has the right length. */
  private static final int ATTEMPTS = 200;

  private static final Map<String, String> FORMATS =
      Map.ofEntries(
          Map.entry("date", "2031-04-0%d"),
          Map.entry("date-time", "2031-04-02T04:1%d:00Z"),
          Map.entry("time", "04:1%d:00Z"),
          Map.entry("duration", "PT%dH"),
          Map.entry("uuid", "6f1c2b1e-5f0a-4c7e-9d3b-2a8e4c6d0b1%d"),
          Map.entry("email", "desk%d@harbour.example"),
          Map.entry("idn-email", "desk%d@harbour.example"),
          Map.entry("uri", "https://harbour.example/berths/%d"),
          Map.entry("uri-reference", "/berths/%d"),
          Map.entry("uri-template", "https://harbour.example/berths/{berth}"),
          Map.entry("iri", "https://harbour.example/berths/%d"),
          Map.entry("iri-reference", "/berths/%d"),
          Map.entry("url", "https://harbour.example/berths/%d"),
          Map.entry("hostname", "desk%d.harbour.example"),
          Map.entry("idn-hostname", "desk%d.harbour.example"),
          Map.entry("ipv4", "192.0.2.%d"),
          Map.entry("ipv6", "2001:db8::%d"),
          Map.entry("json-pointer", "/berths/%d"),
          Map.entry("relative-json-pointer", "%d"),
          Map.entry("regex", "B-%d"),
          Map.entry("byte", "dGV4dA=="));

  /** A longer string is not generated. */
  private static final int LONGEST = 1_000_000;

  /** A star stands for at most this many. */
  private static final int MOST_REPETITIONS = 8;

  /** Each format stays valid with one more digit. */
  private static final int VARIATIONS = 9;

  private SampleText() {}

  /**
   * Returns a string.
   *
   * @param variation different strings for different numbers, from 0, as far as there are
   */
  static String of(JsonNode schema, int variation) {
    int least = Math.min(LONGEST, schema.path("minLength").asInt(0));
    int most = schema.path("maxLength").asInt(Integer.MAX_VALUE);
    if (schema.path("pattern").isTextual()) {
      Optional<String> fitting =
          ofPattern(schema.get("pattern").textValue(), least, most, variation);
      if (fitting.isPresent()) {
        return fitting.get();
      }
    }
    String format = FORMATS.get(schema.path("format").asText());
    if (format != null) {
      return String.format(format, (variation + 1) % VARIATIONS + 1);
    }
    String text = variation == 0 ? "text" : "text " + (variation + 1);
    if (text.length() > most) {
      String end = variation == 0 ? "" : Integer.toString(variation + 1);
      String cut = "text".substring(0, Math.max(0, Math.min(4, most - end.length())));
      text = end.length() > most ? "text".substring(0, Math.min(4, most)) : cut + end;
    }
    return text.length() < least ? text + "x".repeat(least - text.length()) : text;
  }

  private static RgxGenProperties options() {
    RgxGenProperties options = new RgxGenProperties();
    RgxGenOption.INFINITE_PATTERN_REPETITION.setInProperties(options, MOST_REPETITIONS);
    return options;
  }

  /** The same pattern gives the same strings. */
  private static Optional<String> ofPattern(String pattern, int least, int most, int variation) {
    if (PatternLength.longest(pattern, MOST_REPETITIONS) > LONGEST) {
      return Optional.empty();
    }
    try {
      Pattern java = Pattern.compile(pattern);
      RgxGen generator = RgxGen.parse(options(), pattern);
      for (int attempt = 0; attempt < ATTEMPTS; attempt++) {
        String text = generator.generate(new Random(variation * (long) ATTEMPTS + attempt));
        int length = text.codePointCount(0, text.length());
        if (length >= least && length <= most && LimitedRegex.find(java, text)) {
          return Optional.of(text);
        }
        String longer = text + "x".repeat(Math.max(0, least - length));
        if (least <= most && !longer.equals(text) && LimitedRegex.find(java, longer)) {
          return Optional.of(longer);
        }
      }
    } catch (RuntimeException notSupported) {
      // The value will be checked, and the failure has the place.
    }
    return Optional.empty();
  }
}
