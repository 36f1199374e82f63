package dev.cachette.cassette;

import dev.cachette.http.Request;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.xml.XPaths;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;

/**
 * Which recording answers a request: the one with the same method, URL (its parameters in any
 * order) and body. Bodies are compared by their type: JSON, XML, form and multipart by what they
 * say, other text but for its line ends, and all else byte by byte.
 *
 * <p>Where several fit, they answer in the order in which they were recorded, and the last one
 * stays. Immutable: every method returns another one.
 */
public final class Matching {

  private static final Matching BY_DEFAULT = new Matching();

  /** A part of a request that is compared. */
  public enum Part {
    /** The method. */
    METHOD,
    /** Scheme, host and port. */
    ORIGIN,
    /** The path. */
    PATH,
    /** The parameters of the query, in any order. */
    QUERY,
    /** The body. */
    BODY
  }

  private Set<Part> parts = EnumSet.allOf(Part.class);
  private List<String> headers = List.of();
  private List<String> ignoredQuery = List.of();
  private List<String> ignoredHeaders = List.of();
  private List<String> ignoredFields = List.of();
  private List<String> ignoredJson = List.of();
  private List<String> ignoredXml = List.of();
  private @Nullable BiPredicate<Request, Request> comparison;
  private boolean onceEach;

  private Matching() {}

  private Matching(Matching other) {
    this.parts = other.parts;
    this.headers = other.headers;
    this.ignoredQuery = other.ignoredQuery;
    this.ignoredHeaders = other.ignoredHeaders;
    this.ignoredFields = other.ignoredFields;
    this.ignoredJson = other.ignoredJson;
    this.ignoredXml = other.ignoredXml;
    this.comparison = other.comparison;
    this.onceEach = other.onceEach;
  }

  /** Method, URL and body; nothing is ignored. */
  public static Matching byDefault() {
    return BY_DEFAULT;
  }

  /**
   * Compares these parts, and no others.
   *
   * @throws IllegalArgumentException if there is none
   */
  public Matching on(Part... wanted) {
    if (wanted == null || wanted.length == 0) {
      throw new IllegalArgumentException(
          "on(...) was given no part to compare. Mend: on(METHOD, PATH), for example.");
    }
    Matching changed = new Matching(this);
    changed.parts = EnumSet.copyOf(List.of(wanted));
    return changed;
  }

  /** Compares the values of these headers, too. */
  public Matching andHeaders(String... names) {
    Matching changed = new Matching(this);
    changed.headers = more(headers, lower(names("andHeaders", names)));
    return changed;
  }

  /** Does not compare these parameters of the query. */
  public Matching ignoringQuery(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredQuery = more(ignoredQuery, names("ignoringQuery", names));
    return changed;
  }

  /** Does not compare these headers, even where {@link #andHeaders} names them. */
  public Matching ignoringHeaders(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredHeaders = more(ignoredHeaders, lower(names("ignoringHeaders", names)));
    return changed;
  }

  /** Does not compare these fields of forms, URL-encoded or multipart. */
  public Matching ignoringFields(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredFields = more(ignoredFields, names("ignoringFields", names));
    return changed;
  }

  /**
   * Does not compare what stands at these places in JSON.
   *
   * @param paths JSONPaths (RFC 9535) or JSON Pointers (RFC 6901)
   * @throws IllegalArgumentException if one is malformed
   */
  public Matching ignoringJson(String... paths) {
    List<String> given = names("ignoringJson", paths);
    given.forEach(JsonQuery::parse);
    Matching changed = new Matching(this);
    changed.ignoredJson = more(ignoredJson, given);
    return changed;
  }

  /**
   * Does not compare the elements and attributes that these XPaths (1.0) find. A name without a
   * prefix is found in any namespace by {@code local-name()} only.
   *
   * @throws IllegalArgumentException if one is malformed
   */
  public Matching ignoringXPath(String... expressions) {
    List<String> given = names("ignoringXPath", expressions);
    given.forEach(expression -> new XPaths(expression, Map.of()));
    Matching changed = new Matching(this);
    changed.ignoredXml = more(ignoredXml, given);
    return changed;
  }

  /**
   * Compares by a predicate in place of the body, among the recordings whose other parts fit. It is
   * given the recorded request, then the one that arrived; secrets are markers in both.
   */
  public Matching by(BiPredicate<Request, Request> recordedAndActual) {
    if (recordedAndActual == null) {
      throw new IllegalArgumentException("by(...) was given no predicate.");
    }
    Matching changed = new Matching(this);
    changed.comparison = recordedAndActual;
    return changed;
  }

  /** Each recording answers once; a request beyond the last of them is an unexpected call. */
  public Matching onceEach() {
    Matching changed = new Matching(this);
    changed.onceEach = true;
    return changed;
  }

  /** Whether a part is compared. */
  public boolean isOn(Part part) {
    return parts.contains(part);
  }

  /** The headers that are compared, in lower case. */
  public List<String> headers() {
    return headers.stream().filter(name -> !ignoredHeaders.contains(name)).toList();
  }

  /** The parameters that are not compared. */
  public List<String> ignoredQuery() {
    return ignoredQuery;
  }

  /** The headers that are not compared, in lower case. */
  public List<String> ignoredHeaders() {
    return ignoredHeaders;
  }

  /** The form fields that are not compared. */
  public List<String> ignoredFields() {
    return ignoredFields;
  }

  /** The places in JSON that are not compared. */
  public List<String> ignoredJson() {
    return ignoredJson;
  }

  /** The places in XML that are not compared. */
  public List<String> ignoredXml() {
    return ignoredXml;
  }

  /** The comparison of the user's own. */
  public Optional<BiPredicate<Request, Request>> comparison() {
    return Optional.ofNullable(comparison);
  }

  /** Whether each recording answers once. */
  public boolean isOnceEach() {
    return onceEach;
  }

  private static List<String> names(String method, String... names) {
    if (names == null || names.length == 0) {
      throw new IllegalArgumentException(method + "(...) was given nothing.");
    }
    for (String name : names) {
      if (name == null || name.isBlank()) {
        throw new IllegalArgumentException(method + "(...) was given an empty name.");
      }
    }
    return List.of(names);
  }

  private static List<String> lower(List<String> names) {
    return names.stream().map(name -> name.toLowerCase(Locale.ROOT)).toList();
  }

  private static List<String> more(List<String> old, List<String> added) {
    List<String> all = new ArrayList<>(old);
    added.stream().filter(name -> !all.contains(name)).forEach(all::add);
    return List.copyOf(all);
  }
}
