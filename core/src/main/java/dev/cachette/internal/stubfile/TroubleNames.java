package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.Trouble;
import dev.cachette.answer.Troubles;
import dev.cachette.internal.text.Likeness;
import java.util.Collection;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Supplier;

/** The names that troubles have in stub files: those of the methods of {@link Troubles}. */
final class TroubleNames {

  static final String NO_HTTP = "noHttp";
  static final String CUT_SHORT = "cutShort";
  static final String HEADERS_TOO_LARGE = "headersTooLarge";

  /** Those that come in place of an answer. */
  private static final Map<String, Supplier<Trouble>> ALONE =
      new TreeMap<>(
          Map.ofEntries(
              Map.entry("unknownHost", Troubles::unknownHost),
              Map.entry("connectionRefused", Troubles::connectionRefused),
              Map.entry("connectTimeout", Troubles::connectTimeout),
              Map.entry("expiredCertificate", Troubles::expiredCertificate),
              Map.entry("notYetValidCertificate", Troubles::notYetValidCertificate),
              Map.entry("wrongHostCertificate", Troubles::wrongHostCertificate),
              Map.entry("untrustedAuthority", Troubles::untrustedAuthority),
              Map.entry("handshakeRefused", Troubles::handshakeRefused),
              Map.entry("oldTlsOnly", Troubles::oldTlsOnly),
              Map.entry("connectionReset", Troubles::connectionReset),
              Map.entry("connectionClosed", Troubles::connectionClosed),
              Map.entry("silence", Troubles::silence),
              Map.entry("streamReset", Troubles::streamReset),
              Map.entry("goAway", Troubles::goAway),
              Map.entry(NO_HTTP, Troubles::noHttp)));

  /** Those that come in an answer. */
  private static final Map<String, Function<ResponseAnswer, Answer>> WITHIN =
      new TreeMap<>(
          Map.of(
              "resetWithin",
              Troubles::resetWithin,
              "resetAfter",
              Troubles::resetAfter,
              CUT_SHORT,
              Troubles::cutShort,
              "brokenChunks",
              Troubles::brokenChunks,
              "wrongContentType",
              Troubles::wrongContentType,
              "invalidJson",
              Troubles::invalidJson,
              "badGzip",
              Troubles::badGzip,
              "wrongCharset",
              Troubles::wrongCharset));

  private TroubleNames() {}

  static boolean isWithin(String name) {
    return WITHIN.containsKey(name);
  }

  /** A trouble in an answer. */
  static Answer within(String name, ResponseAnswer answer) {
    return WITHIN.get(name).apply(answer);
  }

  /**
   * A trouble in place of an answer.
   *
   * @throws IllegalArgumentException if there is none of this name
   */
  static Trouble alone(String name) {
    Supplier<Trouble> trouble = ALONE.get(name);
    if (trouble == null) {
      throw new IllegalArgumentException(
          isWithin(name)
              ? "the trouble \""
                  + name
                  + "\" comes in an answer. Mend: { trouble: "
                  + name
                  + ", json: ... }."
              : unknown(name));
    }
    return trouble.get();
  }

  /** The name of a trouble that was made in Java. */
  static String of(Trouble.Kind kind) {
    String words = kind.name().toLowerCase(Locale.ROOT);
    StringBuilder name = new StringBuilder();
    for (String word : words.split("_")) {
      name.append(
          name.isEmpty() ? word : Character.toUpperCase(word.charAt(0)) + word.substring(1));
    }
    return name.toString();
  }

  private static String unknown(String name) {
    Collection<String> all = new TreeSet<>(ALONE.keySet());
    all.addAll(WITHIN.keySet());
    all.add(HEADERS_TOO_LARGE);
    String near = Likeness.nearest(name, all).map(it -> " Is \"" + it + "\" meant?").orElse("");
    return String.format(
        "\"%s\" is no trouble.%s Allowed here: %s.", name, near, String.join(", ", all));
  }
}
