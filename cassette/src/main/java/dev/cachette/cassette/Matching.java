// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.http.Request;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.misuse.Refusals;
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
 * Which recorded exchange answers a request: the one with the same method, URL (parameters in any
 * order) and body. Bodies are compared by type: JSON, XML, forms and multipart by content, other
 * text ignoring line endings, and everything else byte by byte.
 *
 * <p>If several match, they answer in the order in which they were recorded, and the last one
 * stays. Immutable: every method returns a new object.
 */
public final class Matching {

  private static final Matching BY_DEFAULT = new Matching();

  /** A part of a request. */
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
  private List<String> varyingPaths = List.of();
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
    this.varyingPaths = other.varyingPaths;
    this.ignoredQuery = other.ignoredQuery;
    this.ignoredHeaders = other.ignoredHeaders;
    this.ignoredFields = other.ignoredFields;
    this.ignoredJson = other.ignoredJson;
    this.ignoredXml = other.ignoredXml;
    this.comparison = other.comparison;
    this.onceEach = other.onceEach;
  }

  /** Returns the default: method, URL and body are compared; nothing is ignored. */
  public static Matching byDefault() {
    return BY_DEFAULT;
  }

  /**
   * Compares only these parts.
   *
   * @throws IllegalArgumentException if there is none
   */
  public Matching on(Part... wanted) {
    if (wanted == null || wanted.length == 0) {
      throw Refusals.argument(
          "on(...) needs at least one part. Fix: on(METHOD, PATH), for example.");
    }
    Matching changed = new Matching(this);
    changed.parts = EnumSet.copyOf(List.of(wanted));
    return changed;
  }

  /** Compares the values of these headers as well. */
  public Matching andHeaders(String... names) {
    Matching changed = new Matching(this);
    changed.headers = more(headers, lower(names("andHeaders", names)));
    return changed;
  }

  /**
   * Ignores segments of paths: with {@code /v1/bookings/{id}}, {@code /v1/bookings/7} is the same
   * as {@code /v1/bookings/9}.
   *
   * @param templates paths with {@code {name}} for the segments that vary
   * @throws IllegalArgumentException if one does not begin with a slash, or has nothing that varies
   */
  public Matching ignoringPath(String... templates) {
    List<String> given = names("ignoringPath", templates);
    for (String template : given) {
      if (!template.startsWith("/") || !template.contains("{")) {
        throw Refusals.argument(
            String.format(
                "ignoringPath(...) needs paths such as /v1/bookings/{id}, not \"%s\".", template));
      }
    }
    Matching changed = new Matching(this);
    changed.varyingPaths = more(varyingPaths, given);
    return changed;
  }

  /** Ignores these query parameters. */
  public Matching ignoringQuery(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredQuery = more(ignoredQuery, names("ignoringQuery", names));
    return changed;
  }

  /** Ignores these headers, even if {@link #andHeaders} names them. */
  public Matching ignoringHeaders(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredHeaders = more(ignoredHeaders, lower(names("ignoringHeaders", names)));
    return changed;
  }

  /** Ignores these fields of URL-encoded and multipart forms. */
  public Matching ignoringFields(String... names) {
    Matching changed = new Matching(this);
    changed.ignoredFields = more(ignoredFields, names("ignoringFields", names));
    return changed;
  }

  /**
   * Ignores these places in JSON.
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
   * Ignores the elements and attributes that these XPaths (1.0) select. To select names in any
   * namespace, use {@code local-name()}.
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
   * Compares bodies by a predicate, among the exchanges whose other parts match. Its arguments are
   * the recorded request and the one that arrived; secrets are placeholders in both.
   */
  public Matching by(BiPredicate<Request, Request> recordedAndActual) {
    if (recordedAndActual == null) {
      throw Refusals.argument("by(...) needs a predicate.");
    }
    Matching changed = new Matching(this);
    changed.comparison = recordedAndActual;
    return changed;
  }

  /** Uses each exchange once; a request after the last of them is an unexpected call. */
  public Matching onceEach() {
    Matching changed = new Matching(this);
    changed.onceEach = true;
    return changed;
  }

  /** Returns true if a part is compared. */
  public boolean isOn(Part part) {
    return parts.contains(part);
  }

  /** Returns the headers that are compared, in lower case. */
  public List<String> headers() {
    return headers.stream().filter(name -> !ignoredHeaders.contains(name)).toList();
  }

  /** Returns the paths with segments that are ignored. */
  public List<String> varyingPaths() {
    return varyingPaths;
  }

  /** Returns the query parameters that are ignored. */
  public List<String> ignoredQuery() {
    return ignoredQuery;
  }

  /** Returns the headers that are ignored, in lower case. */
  public List<String> ignoredHeaders() {
    return ignoredHeaders;
  }

  /** Returns the form fields that are ignored. */
  public List<String> ignoredFields() {
    return ignoredFields;
  }

  /** Returns the places in JSON that are ignored. */
  public List<String> ignoredJson() {
    return ignoredJson;
  }

  /** Returns the places in XML that are ignored. */
  public List<String> ignoredXml() {
    return ignoredXml;
  }

  /** Returns the places in bodies that are ignored. */
  Ignored ignoredInBody() {
    return new Ignored(ignoredJson, ignoredXml, ignoredFields);
  }

  /** Returns the custom predicate. */
  public Optional<BiPredicate<Request, Request>> comparison() {
    return Optional.ofNullable(comparison);
  }

  /** Returns true if each exchange is used once. */
  public boolean isOnceEach() {
    return onceEach;
  }

  private static List<String> names(String method, String... names) {
    if (names == null || names.length == 0) {
      throw Refusals.argument(method + "(...) needs at least one name.");
    }
    for (String name : names) {
      if (name == null || name.isBlank()) {
        throw Refusals.argument(method + "(...) was given an empty name.");
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
