// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.result.Check;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A parsed request line. */
public final class RequestLine {

  private static final Optional<Map<String, String>> NO_VARIABLES = Optional.of(Map.of());

  private final String text;
  private final Methods methods;
  private final Optional<Origin> origin;
  private final PathTemplate path;
  private final List<QueryParameter> parameters;
  private final Set<String> variables;
  private final Specificity specificity;

  /** Method, origin and path in one key, if each is exact. */
  private final @Nullable String exact;

  /** Created on demand; two threads may create the same. */
  private @Nullable String site;

  RequestLine(
      String text,
      Methods methods,
      Optional<Origin> origin,
      PathTemplate path,
      List<QueryParameter> parameters,
      Set<String> variables) {
    this.text = text;
    this.methods = methods;
    this.origin = origin;
    this.path = path;
    this.parameters = List.copyOf(parameters);
    this.variables = new LinkedHashSet<>(variables);
    int originRank = origin.map(named -> named.isLiteral() ? 2 : 1).orElse(0);
    this.specificity = new Specificity(originRank, path.ranks(), methods.rank(), parameters.size());
    boolean single = methods.names().size() == 1 && originRank == 2 && path.isLiteral();
    this.exact =
        single
            ? RequestKey.of(
                methods.toString(), origin.map(Origin::toString).orElseThrow(), path.literal())
            : null;
  }

  /** Returns the line as written. */
  public String text() {
    return text;
  }

  /** Returns its origin; empty for any. */
  public Optional<Origin> origin() {
    return origin;
  }

  /** Returns the names of its variables. */
  public Set<String> variables() {
    return variables;
  }

  /** Returns its specificity. */
  public Specificity specificity() {
    return specificity;
  }

  /** Returns method, origin and path in one key, if each is exact. */
  public Optional<String> exact() {
    return Optional.ofNullable(exact);
  }

  /** Returns its place in an index. */
  public IndexKey indexKey() {
    return new IndexKey(
        exact(),
        methods.names(),
        origin.filter(Origin::isLiteral).map(Origin::toString),
        path.literalPrefix(),
        path.isLiteral());
  }

  /** Returns the variables with their values, if the request matches. */
  public Optional<Map<String, String>> match(ParsedRequest received) {
    Request request = received.request();
    if (!methods.hold(request.method())
        || !parameters.isEmpty() && !holdsInQuery(received.query())) {
      return Optional.empty();
    }
    Optional<Map<String, String>> atOrigin =
        origin.isEmpty() ? NO_VARIABLES : origin.get().match(request.uri());
    if (atOrigin.isEmpty()) {
      return Optional.empty();
    }
    Optional<Map<String, String>> inPath = path.match(received.normalPath());
    if (inPath.isEmpty() || atOrigin.get().isEmpty() && parameters.isEmpty()) {
      return inPath;
    }
    Map<String, String> values = new LinkedHashMap<>(atOrigin.get());
    values.putAll(inPath.get());
    addQuery(received.query(), values);
    return Optional.of(values);
  }

  /** Returns true if the time that matching takes is in proportion to the request line. */
  public boolean isQuick() {
    return path.isQuick();
  }

  /**
   * Returns roughly how much a request has in common with it: the more, the greater. Cheap, to
   * choose among thousands of lines those that are worth {@link #examine examining}.
   */
  public int likeness(ParsedRequest received) {
    boolean atOrigin = origin.isEmpty() || origin.get().match(received.request().uri()).isPresent();
    return path.likeness(received.segments())
        + (atOrigin ? 50 : 0)
        + (methods.hold(received.request().method()) ? 20 : 0);
  }

  /** Returns the check of each part of the line. */
  public List<Check> examine(Request request) {
    List<Check> checks = new ArrayList<>();
    checks.add(methods.examine(request.method()));
    origin.ifPresent(named -> checks.add(named.examine(request.uri())));
    checks.add(path.examine(request.uri().path()));
    Query query = request.uri().query();
    parameters.forEach(parameter -> checks.add(parameter.examine(query)));
    return checks;
  }

  /** Returns origin and form of the path in one key: lines that cover one another share it. */
  public String site() {
    String known = site;
    if (known == null) {
      known = origin.map(Origin::toString).orElse("") + path.form();
      site = known;
    }
    return known;
  }

  /** Returns true if every request that matches the other line certainly matches this one. */
  public boolean covers(RequestLine other) {
    return methods.cover(other.methods)
        && site().equals(other.site())
        && other.parameters.containsAll(parameters);
  }

  private boolean holdsInQuery(Query query) {
    for (QueryParameter parameter : parameters) {
      if (!parameter.holds(query)) {
        return false;
      }
    }
    return true;
  }

  private void addQuery(Query query, Map<String, String> values) {
    for (QueryParameter parameter : parameters) {
      parameter
          .variable()
          .ifPresent(name -> values.put(name, query.first(parameter.name()).orElse("")));
    }
  }
}
