// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.text.NameSuggester;
import java.util.Collection;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Supplier;

/** The names of faults in stub files: those of the methods of {@link Faults}. */
final class FaultNames {

  static final String NOT_HTTP = "notHttp";
  static final String TRUNCATED = "truncated";
  static final String HEADERS_TOO_LARGE = "headersTooLarge";

  /** Faults instead of an answer. */
  private static final Map<String, Supplier<Fault>> ALONE =
      new TreeMap<>(
          Map.ofEntries(
              Map.entry("unknownHost", Faults::unknownHost),
              Map.entry("connectionRefused", Faults::connectionRefused),
              Map.entry("connectTimeout", Faults::connectTimeout),
              Map.entry("expiredCertificate", Faults::expiredCertificate),
              Map.entry("notYetValidCertificate", Faults::notYetValidCertificate),
              Map.entry("wrongHostCertificate", Faults::wrongHostCertificate),
              Map.entry("untrustedAuthority", Faults::untrustedAuthority),
              Map.entry("handshakeRefused", Faults::handshakeRefused),
              Map.entry("outdatedTls", Faults::outdatedTls),
              Map.entry("connectionReset", Faults::connectionReset),
              Map.entry("connectionClosed", Faults::connectionClosed),
              Map.entry("noResponse", Faults::noResponse),
              Map.entry("streamReset", Faults::streamReset),
              Map.entry("goAway", Faults::goAway),
              Map.entry(NOT_HTTP, Faults::notHttp)));

  /** Faults within an answer. */
  private static final Map<String, Function<ResponseAnswer, Answer>> WITHIN =
      new TreeMap<>(
          Map.of(
              "resetMidBody",
              Faults::resetMidBody,
              "resetAfter",
              Faults::resetAfter,
              TRUNCATED,
              Faults::truncated,
              "malformedChunks",
              Faults::malformedChunks,
              "wrongContentType",
              Faults::wrongContentType,
              "invalidJson",
              Faults::invalidJson,
              "badGzip",
              Faults::badGzip,
              "wrongCharset",
              Faults::wrongCharset));

  private FaultNames() {}

  static boolean isWithin(String name) {
    return WITHIN.containsKey(name);
  }

  /** Returns a fault within an answer. */
  static Answer within(String name, ResponseAnswer answer) {
    return WITHIN.get(name).apply(answer);
  }

  /**
   * Returns a fault instead of an answer.
   *
   * @throws IllegalArgumentException if the name is unknown
   */
  static Fault alone(String name) {
    Supplier<Fault> fault = ALONE.get(name);
    if (fault == null) {
      throw new IllegalArgumentException(
          isWithin(name)
              ? "the fault \""
                  + name
                  + "\" needs an answer. Fix: { fault: "
                  + name
                  + ", json: ... }."
              : unknown(name));
    }
    return fault.get();
  }

  /** Returns the name of a fault made in Java. */
  static String of(Fault.Kind kind) {
    String words = kind.name().toLowerCase(Locale.ROOT);
    StringBuilder name = new StringBuilder();
    for (String word : words.split("_")) {
      name.append(
          name.isEmpty() ? word : Character.toUpperCase(word.charAt(0)) + word.substring(1));
    }
    return name.toString();
  }

  /** Returns the names of faults that need no answer and no number. */
  static Collection<String> plain() {
    return ALONE.keySet();
  }

  /** Returns all names. */
  static Collection<String> all() {
    Collection<String> all = new TreeSet<>(ALONE.keySet());
    all.addAll(WITHIN.keySet());
    all.add(HEADERS_TOO_LARGE);
    return all;
  }

  private static String unknown(String name) {
    Collection<String> all = all();
    String near = NameSuggester.question(name, all);
    return String.format(
        "unknown fault \"%s\".%s Allowed: %s.",
        name, near, String.join(", ", NameSuggester.closestFirst(name, all)));
  }
}
