// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.PlainName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The rules for secrets that are redacted in a cassette before anything is written.
 *
 * <p>By default, these are redacted:
 *
 * <ul>
 *   <li>the credentials in {@code Authorization} and {@code Proxy-Authorization}, and cookie
 *       values;
 *   <li>headers, parameters, members of JSON, elements and attributes of XML, fields and parts of
 *       forms, and pairs in plain text, if they are named like passwords, tokens and keys;
 *   <li>values whose shape is that of a secret: JSON Web Tokens, private keys, keys of cloud
 *       services, passwords in URLs, numbers of payment cards;
 *   <li>random text next to a word such as key or token, with a warning.
 * </ul>
 *
 * <p>Each becomes a placeholder, {@code {{name}}}, and so does the same value everywhere else in
 * the cassette, if it is long enough not to occur by chance. In JSON, a number becomes 0.
 *
 * <p>Immutable: every method returns a new object.
 */
public final class Redaction {

  private static final int SHORTEST = 4;
  private static final Redaction BY_DEFAULT = new Redaction();

  private Map<String, String> secrets = Map.of();
  private Set<String> names = Set.of();
  private Set<String> exceptions = Set.of();
  private List<String> allowed = List.of();
  private boolean strict;

  private Redaction() {}

  private Redaction(Redaction other) {
    this.secrets = other.secrets;
    this.names = other.names;
    this.exceptions = other.exceptions;
    this.allowed = other.allowed;
    this.strict = other.strict;
  }

  /** Returns the default rules. */
  public static Redaction byDefault() {
    return BY_DEFAULT;
  }

  /**
   * Replaces a secret by {@code {{name}}} wherever it occurs: in URL, header or body, as it is or
   * URL-encoded, in Base64, escaped in JSON or XML, and within gzip. On replay the placeholder is
   * replaced by the value.
   *
   * @param name letters, digits, {@code _} and {@code -}
   * @param value at least four characters
   * @throws IllegalArgumentException if one is invalid
   */
  public Redaction secret(String name, String value) {
    if (name == null || !name.matches("[A-Za-z0-9_-]+")) {
      throw Refusals.argument(
          "The name of a secret consists of letters, digits, _ and -; not \"" + name + "\".");
    }
    if (value == null || value.length() < SHORTEST) {
      throw Refusals.argument(
          String.format(
              "The secret %s is %s; text shorter than %d characters occurs by chance.\n"
                  + "Fix: pass its value, from where the code under test reads it.",
              name, value == null ? "null" : "too short", SHORTEST));
    }
    Redaction changed = new Redaction(this);
    Map<String, String> more = new LinkedHashMap<>(secrets);
    more.put(name, value);
    changed.secrets = Collections.unmodifiableMap(more);
    return changed;
  }

  /**
   * Treats these names as secret, too, for headers, parameters, fields, members, elements and
   * attributes; ignoring case, {@code -}, {@code _} and {@code .}
   */
  public Redaction alsoNamed(String... more) {
    Redaction changed = new Redaction(this);
    changed.names = plus(names, "alsoNamed", more);
    return changed;
  }

  /** Does not treat these names as secret, though they are by default. */
  public Redaction except(String... more) {
    Redaction changed = new Redaction(this);
    changed.exceptions = plus(exceptions, "except", more);
    return changed;
  }

  /** Allows these texts, though they look like secrets. */
  public Redaction allowing(String... texts) {
    if (texts == null || texts.length == 0) {
      throw Refusals.argument("allowing(...) needs at least one text.");
    }
    Redaction changed = new Redaction(this);
    List<String> more = new ArrayList<>(allowed);
    more.addAll(List.of(texts));
    changed.allowed = List.copyOf(more);
    return changed;
  }

  /**
   * Leaves out of the cassette the exchanges in which something only looks like a secret: random
   * text next to a word such as key or token. The others are written, and the test fails. Without
   * this, such text is redacted with a warning.
   */
  public Redaction strict() {
    Redaction changed = new Redaction(this);
    changed.strict = true;
    return changed;
  }

  /** Returns true if exchanges that may contain a secret are left out. */
  public boolean isStrict() {
    return strict;
  }

  /** Returns the named secrets. */
  public Map<String, String> secrets() {
    return secrets;
  }

  /** Returns additional secret names, in normal form. */
  public Set<String> names() {
    return names;
  }

  /** Returns names that are not secret, in normal form. */
  public Set<String> exceptions() {
    return exceptions;
  }

  /** Returns texts that are not secret. */
  public List<String> allowed() {
    return allowed;
  }

  private static Set<String> plus(Set<String> old, String method, String... more) {
    if (more == null || more.length == 0) {
      throw Refusals.argument(method + "(...) needs at least one name.");
    }
    Set<String> all = new TreeSet<>(old);
    for (String name : more) {
      if (name == null || PlainName.of(name).isEmpty()) {
        throw Refusals.argument(method + "(...) was given \"" + name + "\", which is not a name.");
      }
      all.add(PlainName.of(name));
    }
    return Collections.unmodifiableSet(all);
  }
}
