// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Masks secrets in whatever a person reads: messages, logs, the control port. */
public final class Masking {

  private static final Pattern TOKEN =
      Pattern.compile("(?<=(?:Unrecognized|offending) token ').+?(?='(?: at|:|$))");

  /** The replacement for secrets. */
  public static final String MASK = "****";

  private static volatile Hidden hidden = new Hidden(SecretPolicy.DEFAULT, Set.of());

  private Masking() {}

  /** Secrets to mask: by a policy, and further values wherever they occur. */
  private record Hidden(SecretPolicy policy, Set<String> values, SecretFinder finder) {

    Hidden(SecretPolicy policy, Set<String> values) {
      this(policy, values, new SecretFinder(policy, secret -> MASK));
    }

    String values(String text) {
      String masked = text;
      for (String value : values) {
        masked = masked.replace(value, MASK);
      }
      return masked;
    }
  }

  /**
   * Also masks what a recording hides by its own rules. Whatever was hidden once stays masked in
   * this JVM, as messages may come late, and from other tests.
   *
   * @param names further names that are secret, in plain form
   * @param values secrets themselves
   */
  public static void alsoHide(Set<String> names, Collection<String> values) {
    if (names.isEmpty() && values.isEmpty()) {
      return;
    }
    synchronized (Masking.class) {
      Set<String> allNames = new TreeSet<>(hidden.policy.more());
      allNames.addAll(names);
      Set<String> allValues = new TreeSet<>(hidden.values);
      allValues.addAll(values);
      hidden =
          new Hidden(
              new SecretPolicy(Set.copyOf(allNames), Set.of(), List.of()), Set.copyOf(allValues));
    }
  }

  /** Returns the policy by which messages are masked. */
  public static SecretPolicy policy() {
    return hidden.policy;
  }

  /** Returns the secrets that are masked wherever they occur. */
  public static Set<String> values() {
    return hidden.values;
  }

  /** Returns the value of a header; an authentication scheme stays. */
  public static String header(String name, String value) {
    return masked(finder -> finder.header(name, value));
  }

  /** Masks what looks like a secret, wherever it is; not what is only named like one. */
  public static String shapes(String text) {
    return SecretShapes.replace(text, secret -> MASK);
  }

  /** Masks the URL of a request line. */
  public static String line(String line) {
    int space = line.indexOf(' ');
    return line.substring(0, space + 1) + url(line.substring(space + 1));
  }

  /** Returns a URL, or a path with its query. */
  public static String url(String url) {
    return masked(finder -> finder.url(url));
  }

  /** Returns the value of a query parameter or of a field of a form. */
  public static String field(String name, String value) {
    return masked(finder -> finder.field(name, value));
  }

  /** Returns one value of this name, such as a member of JSON. */
  public static String value(String name, String text) {
    return masked(finder -> finder.value(name, text));
  }

  /** Returns a body. */
  public static String body(Optional<String> contentType, String text) {
    return masked(finder -> finder.body(contentType, text));
  }

  /** Returns a parser's message about a text: a token that it quotes may be a secret. */
  public static String quotedToken(String message, String text) {
    Matcher token = TOKEN.matcher(message);
    return token.find() && !body(Optional.empty(), text).contains(token.group())
        ? message.substring(0, token.start()) + MASK + message.substring(token.end())
        : message;
  }

  /** Returns any other text. */
  public static String text(String text) {
    return masked(finder -> finder.text(text));
  }

  private static String masked(Function<SecretFinder, String> finding) {
    Hidden now = hidden;
    return now.values(finding.apply(now.finder));
  }
}
