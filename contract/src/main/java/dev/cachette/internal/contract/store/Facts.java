// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.uri.Percent;
import dev.cachette.verification.StoreException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The names of the files of a store. They say most of what there is to know, so that a listing is
 * enough to answer most questions.
 */
final class Facts {

  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss.SSS'Z'", Locale.ROOT).withZone(ZoneOffset.UTC);

  private static final Pattern CONTRACT =
      Pattern.compile("contracts/([^/]+)/([^/]+)/([^/]+)" + Pattern.quote(Contract.ENDING));
  private static final Pattern LABEL =
      Pattern.compile(
          "labels/([^/]+)/([^/]+)/(version|branch|environment)=([^/]*)" + "@([^/@]+)-[0-9a-f]{8}");
  private static final Pattern RESULT =
      Pattern.compile(
          "results/([^/]+)/([^/]+)/([^/]+)/([^/]+)/(met|unmet)-([0-9a-f]+)"
              + "@([^/@]+)-[0-9a-f]{8}\\.json");

  private Facts() {}

  /** A contract of a version of a consumer. */
  record OfContract(String provider, String consumer, String version, String path) {}

  /** A label of a version: {@code environment=production}. */
  record OfLabel(String name, String version, String kind, String value, Instant at) {}

  /** A verification. */
  record OfResult(
      String provider,
      String providerVersion,
      String consumer,
      String consumerVersion,
      boolean met,
      String digest,
      Instant at,
      String path) {}

  static String contract(String provider, String consumer, String version) {
    return String.join("/", "contracts", provider, consumer, version + Contract.ENDING);
  }

  static String label(String name, String version, String kind, String value, Instant at) {
    return String.format(
        "labels/%s/%s/%s=%s@%s", name, version, kind, Percent.encodeSegment(value), unique(at));
  }

  /** Returns the path of a result of the contract of a consumer's version. */
  static String result(
      OfContract contract, String digest, String providerVersion, boolean met, Instant at) {
    return String.format(
        "results/%s/%s/%s/%s/%s-%s@%s.json",
        contract.provider(),
        providerVersion,
        contract.consumer(),
        contract.version(),
        met ? "met" : "unmet",
        digest,
        unique(at));
  }

  private static String unique(Instant at) {
    return TIME.format(at)
        + String.format(Locale.ROOT, "-%08x", ThreadLocalRandom.current().nextInt());
  }

  static Optional<OfContract> contract(String path) {
    Matcher is = CONTRACT.matcher(path);
    return is.matches()
        ? Optional.of(new OfContract(is.group(1), is.group(2), is.group(3), path))
        : Optional.empty();
  }

  static Optional<OfLabel> label(String path) {
    Matcher is = LABEL.matcher(path);
    return is.matches()
        ? Optional.of(
            new OfLabel(
                is.group(1),
                is.group(2),
                is.group(3),
                Percent.decode(is.group(4)),
                time(is.group(5))))
        : Optional.empty();
  }

  static Optional<OfResult> result(String path) {
    Matcher is = RESULT.matcher(path);
    return is.matches()
        ? Optional.of(
            new OfResult(
                is.group(1),
                is.group(2),
                is.group(3),
                is.group(4),
                is.group(5).equals("met"),
                is.group(6),
                time(is.group(7)),
                path))
        : Optional.empty();
  }

  private static Instant time(String text) {
    return TIME.parse(text, Instant::from);
  }

  /** Requires that a file that exists is the same. */
  static void requireSame(String path, String there, String text) {
    if (!there.equals(text)) {
      throw new StoreException(
          String.format(
              "%s is in the store already, with another text. A version is published once. Fix:"
                  + " publish under another version.",
              path));
    }
  }
}
