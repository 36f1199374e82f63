package dev.cachette.internal.match;

import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Verdict;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A parsed request line. */
public final class RequestLine {

  private final String text;
  private final String method;
  private final Optional<Origin> origin;
  private final PathTemplate path;
  private final List<QueryParameter> parameters;
  private final Specificity specificity;

  RequestLine(
      String text,
      String method,
      Optional<Origin> origin,
      PathTemplate path,
      List<QueryParameter> parameters) {
    this.text = text;
    this.method = method;
    this.origin = origin;
    this.path = path;
    this.parameters = List.copyOf(parameters);
    this.specificity = new Specificity(origin.isPresent(), path.ranks(), parameters.size());
  }

  /** The line as it was written. */
  public String text() {
    return text;
  }

  /** The origin that it names; empty if it is meant for any. */
  public Optional<Origin> origin() {
    return origin;
  }

  /** How narrow it is. */
  public Specificity specificity() {
    return specificity;
  }

  /** The variables with their values, if the request fits. */
  public Optional<Map<String, String>> match(Request request) {
    if (!method.equals(request.method()) || !holdsAtOrigin(request) || !holdsInQuery(request)) {
      return Optional.empty();
    }
    return path.match(request.uri().path()).map(found -> withQuery(found, request));
  }

  /** Every condition with how it fares. */
  public Verdict examine(Request request) {
    List<Check> checks = new ArrayList<>();
    checks.add(examineMethod(request.method()));
    origin.ifPresent(named -> checks.add(named.examine(request.uri())));
    checks.add(path.examine(request.uri().path()));
    Query query = request.uri().query();
    parameters.forEach(parameter -> checks.add(parameter.examine(query)));
    return new Verdict(checks);
  }

  private Check examineMethod(String actual) {
    return method.equals(actual)
        ? Check.held("method", method, actual)
        : Check.missed("method", 0.2, method, actual, Optional.empty());
  }

  private boolean holdsAtOrigin(Request request) {
    return origin.isEmpty() || origin.get().holds(request.uri());
  }

  private boolean holdsInQuery(Request request) {
    if (parameters.isEmpty()) {
      return true;
    }
    Query query = request.uri().query();
    return parameters.stream().allMatch(parameter -> parameter.holds(query));
  }

  private Map<String, String> withQuery(Map<String, String> found, Request request) {
    if (parameters.isEmpty()) {
      return found;
    }
    Query query = request.uri().query();
    Map<String, String> all = new LinkedHashMap<>(found);
    for (QueryParameter parameter : parameters) {
      parameter
          .variable()
          .ifPresent(name -> all.put(name, query.first(parameter.name()).orElse("")));
    }
    return all;
  }
}
