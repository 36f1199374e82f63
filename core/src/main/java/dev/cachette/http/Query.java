// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The query parameters of a URI, decoded like HTML forms: names and values are percent-decoded, a
 * plus sign is a space, and a parameter may be repeated.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class Query {

  private static final Query NONE = new Query(Map.of());

  private final Map<String, List<String>> parameters;

  private Query(Map<String, List<String>> parameters) {
    this.parameters = parameters;
  }

  /** Parses the query of a URI, without the question mark; it may be empty. */
  public static Query read(String raw) {
    if (raw.isEmpty()) {
      return NONE;
    }
    Map<String, List<String>> parameters = new LinkedHashMap<>();
    for (String pair : raw.split("&")) {
      if (!pair.isEmpty()) {
        int equals = pair.indexOf('=');
        String name = Percent.decodeForm(equals < 0 ? pair : pair.substring(0, equals));
        String value = equals < 0 ? "" : Percent.decodeForm(pair.substring(equals + 1));
        parameters.merge(name, List.of(value), Query::joined);
      }
    }
    return new Query(Collections.unmodifiableMap(parameters));
  }

  private static List<String> joined(List<String> some, List<String> more) {
    List<String> all = new ArrayList<>(some);
    all.addAll(more);
    return List.copyOf(all);
  }

  /** Returns the first value of the parameter; an empty string if it was given without one. */
  public Optional<String> first(String name) {
    List<String> all = all(name);
    return all.isEmpty() ? Optional.empty() : Optional.of(all.get(0));
  }

  /** Returns all values of the parameter, in order; empty if it was not given. */
  public List<String> all(String name) {
    return parameters.getOrDefault(name, List.of());
  }

  /** Returns the names of the parameters, in order of their first occurrence. */
  public Set<String> names() {
    return parameters.keySet();
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Query query && parameters.equals(query.parameters);
  }

  @Override
  public int hashCode() {
    return parameters.hashCode();
  }

  @Override
  public String toString() {
    return parameters.toString();
  }
}
