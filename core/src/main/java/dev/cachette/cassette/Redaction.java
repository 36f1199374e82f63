package dev.cachette.cassette;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * What is taken out of a cassette before anything is written.
 *
 * <p>By default: the credentials in {@code Authorization} and {@code Proxy-Authorization}, the
 * values of cookies, headers and query parameters that keys usually stand in, and members of JSON,
 * elements and attributes of XML, and fields of forms that passwords and tokens usually stand in.
 * Each becomes a marker, {@code {{name}}}, and so does the same value everywhere else in the
 * cassette, if it is long enough to be no word by chance.
 *
 * <p>What is left is searched for what looks like a secret: JSON Web Tokens, private keys, keys of
 * cloud services, and random text beside words such as key or token. Where there is any, nothing is
 * written.
 *
 * <p>Immutable: every method returns another one.
 */
public final class Redaction {

  private static final int SHORTEST = 4;
  private static final Redaction BY_DEFAULT = new Redaction();

  private Map<String, String> secrets = Map.of();
  private Set<String> names = Set.of();
  private Set<String> spared = Set.of();
  private List<String> allowed = List.of();

  private Redaction() {}

  private Redaction(Redaction other) {
    this.secrets = other.secrets;
    this.names = other.names;
    this.spared = other.spared;
    this.allowed = other.allowed;
  }

  /** The usual places. */
  public static Redaction byDefault() {
    return BY_DEFAULT;
  }

  /**
   * Replaces a secret by {@code {{name}}} wherever it stands: in URL, header or body, as it is or
   * URL-encoded, in Base64, escaped in JSON or XML, and within gzip. On replay the marker is filled
   * with the value again.
   *
   * @param name letters, digits, {@code _} and {@code -}
   * @param value at least four characters
   * @throws IllegalArgumentException if one is not so
   */
  public Redaction secret(String name, String value) {
    if (name == null || !name.matches("[A-Za-z0-9_-]+")) {
      throw new IllegalArgumentException(
          "The name of a secret is made of letters, digits, _ and -; not \"" + name + "\".");
    }
    if (value == null || value.length() < SHORTEST) {
      throw new IllegalArgumentException(
          String.format(
              "The secret %s is %s; a shorter text than %d characters stands in too many places "
                  + "by chance.\nMend: give its value, from where the code under test has it.",
              name, value == null ? "null" : "too short", SHORTEST));
    }
    Redaction changed = new Redaction(this);
    Map<String, String> more = new LinkedHashMap<>(secrets);
    more.put(name, value);
    changed.secrets = Collections.unmodifiableMap(more);
    return changed;
  }

  /**
   * Takes these for secret, too, wherever they name a header, parameter, field, member, element or
   * attribute; whatever their case, and without regard to {@code -}, {@code _} and {@code .}
   */
  public Redaction alsoNamed(String... more) {
    Redaction changed = new Redaction(this);
    changed.names = plus(names, "alsoNamed", more);
    return changed;
  }

  /** Does not take these for secret, though they are by default. */
  public Redaction sparing(String... more) {
    Redaction changed = new Redaction(this);
    changed.spared = plus(spared, "sparing", more);
    return changed;
  }

  /** Does not take these texts for secrets when what is left is searched. */
  public Redaction allowing(String... texts) {
    if (texts == null || texts.length == 0) {
      throw new IllegalArgumentException("allowing(...) was given nothing.");
    }
    Redaction changed = new Redaction(this);
    List<String> more = new ArrayList<>(allowed);
    more.addAll(List.of(texts));
    changed.allowed = List.copyOf(more);
    return changed;
  }

  /** The named secrets. */
  public Map<String, String> secrets() {
    return secrets;
  }

  /** Names that are secret beside the usual ones, in their plain form. */
  public Set<String> names() {
    return names;
  }

  /** Names that are not, in their plain form. */
  public Set<String> spared() {
    return spared;
  }

  /** Texts that are no secrets. */
  public List<String> allowed() {
    return allowed;
  }

  /** A name as it is compared: in lower case, with letters and digits only. */
  public static String plain(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
  }

  private static Set<String> plus(Set<String> old, String method, String... more) {
    if (more == null || more.length == 0) {
      throw new IllegalArgumentException(method + "(...) was given nothing.");
    }
    Set<String> all = new TreeSet<>(old);
    for (String name : more) {
      if (name == null || plain(name).isEmpty()) {
        throw new IllegalArgumentException(method + "(...) was given \"" + name + "\", no name.");
      }
      all.add(plain(name));
    }
    return Collections.unmodifiableSet(all);
  }
}
