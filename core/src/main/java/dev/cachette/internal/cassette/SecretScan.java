package dev.cachette.internal.cassette;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.Content;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Searches for text that still looks like a secret, before it is written. */
final class SecretScan {

  private static final int MOST_TOLD = 10;
  private static final int SHOWN = 4;
  private static final double RANDOM = 3.5;

  private static final Map<String, Pattern> SHAPES = new LinkedHashMap<>();

  static {
    shape("a JSON Web Token", "\\beyJ[A-Za-z0-9_-]{8,}\\.[A-Za-z0-9_-]{8,}\\.[A-Za-z0-9_-]*");
    shape("a private key", "-----BEGIN [A-Z ]*PRIVATE KEY-----");
    shape("the key of a cloud account", "\\b(?:AKIA|ASIA)[0-9A-Z]{16}\\b");
    shape("the key of a cloud account", "\\bAIza[0-9A-Za-z_-]{35}\\b");
    shape("an access token", "\\bgh[pousr]_[A-Za-z0-9]{36,}\\b");
    shape("an access token", "\\bxox[abeprs]-[A-Za-z0-9-]{10,}");
    shape("the secret key of an account", "\\b[sr]k_(?:active|test)_[A-Za-z0-9]{16,}");
  }

  /** A word, and a value close after it. */
  private static final Pattern NAMED =
      Pattern.compile(
          "(?i)(key|token|secret|passw|credential|auth|signature)"
              + "[^\\r\\n]{0,24}?(?<![A-Za-z0-9+/_=-])([A-Za-z0-9+/_=-]{20,})");

  private static final Pattern UUID =
      Pattern.compile("(?i)[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");

  private final Redaction rules;
  private final List<String> told = new ArrayList<>();

  SecretScan(Redaction rules) {
    this.rules = rules;
  }

  private static void shape(String what, String pattern) {
    SHAPES.merge(
        what, Pattern.compile(pattern), (one, other) -> Pattern.compile(one + "|" + other));
  }

  /**
   * Searches everything.
   *
   * @throws CassetteException if anything looks like a secret
   */
  void check(String cassette, List<Exchange> exchanges) {
    if (!look(exchanges).isEmpty()) {
      throw refused(cassette);
    }
  }

  /** Returns what looks like a secret, each with its place. */
  List<String> look(List<Exchange> exchanges) {
    for (int at = 0; at < exchanges.size(); at++) {
      Exchange exchange = exchanges.get(at);
      String where = "exchange " + (at + 1) + ", " + exchange.request() + ": ";
      look(where + "the URL", exchange.request().uri().toString());
      look(where, "the request", exchange.request().headers(), exchange.request().body());
      exchange.response().ifPresent(it -> look(where, "the response", it.headers(), it.body()));
    }
    return List.copyOf(told);
  }

  private void look(String where, String message, Headers headers, Body body) {
    headers.forEach(
        header ->
            look(
                where + "the header " + header.name() + " of " + message,
                header.name() + ": " + header.value()));
    if (!body.isEmpty()) {
      look(where + "the body of " + message, Content.of(headers, body).text());
    }
  }

  private void look(String where, String text) {
    SHAPES.forEach(
        (what, shape) -> {
          Matcher found = shape.matcher(text);
          while (found.find()) {
            tell(where, what, found.group());
          }
        });
    Matcher named = NAMED.matcher(text);
    while (named.find()) {
      if (isRandom(named.group(2))) {
        tell(where, "random text next to \"" + named.group(1) + "\"", named.group(2));
      }
    }
  }

  private void tell(String where, String what, String text) {
    if (rules.allowed().stream().noneMatch(allowed -> text.contains(allowed))) {
      String line =
          String.format(
              "  %s\n    %s: %s... (%d characters)",
              where, what, text.substring(0, Math.min(SHOWN, text.length())), text.length());
      if (!told.contains(line)) {
        told.add(line);
      }
    }
  }

  /** Returns true for letters and digits with too many different characters for a word. */
  private static boolean isRandom(String text) {
    boolean letters = text.chars().anyMatch(Character::isLetter);
    boolean digits = text.chars().anyMatch(Character::isDigit);
    return letters && digits && !UUID.matcher(text).matches() && entropy(text) >= RANDOM;
  }

  /** Returns the entropy in bits per character. */
  private static double entropy(String text) {
    Map<Character, Integer> counts = new HashMap<>();
    for (char c : text.toCharArray()) {
      counts.merge(c, 1, Integer::sum);
    }
    double entropy = 0;
    for (int count : counts.values()) {
      double share = (double) count / text.length();
      entropy -= share * Math.log(share) / Math.log(2);
    }
    return entropy;
  }

  private CassetteException refused(String cassette) {
    List<String> shown = told.subList(0, Math.min(MOST_TOLD, told.size()));
    String more = told.size() > MOST_TOLD ? "\n  and " + (told.size() - MOST_TOLD) + " more" : "";
    return new CassetteException(
        String.format(
            "The cassette \"%s\" was not written: it would contain what looks like a secret.\n\n"
                + "%s%s\n\n"
                + "Fix: name the secret with .redact(\"NAME\", value), or its place with\n"
                + ".redaction(how -> how.alsoNamed(\"...\")). If it is not secret, allow it with"
                + " .redaction(how -> how.allowing(\"...\")).",
            cassette, String.join("\n", shown), more));
  }
}
