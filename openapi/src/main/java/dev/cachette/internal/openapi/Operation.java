// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * One operation of an API description.
 *
 * @param title its name: {@code POST /bookings}
 * @param method its method, in upper case
 * @param parameters its parameters, including those of its path
 * @param body its request body; missing if it has none
 * @param responses its responses
 * @param credentials the credentials that it requires
 * @param at its place
 */
record Operation(
    String title,
    String method,
    List<Parameter> parameters,
    Element body,
    Element responses,
    Credentials credentials,
    Element at) {

  /**
   * Parses an operation.
   *
   * @throws MalformedDescription if a part of it cannot be used
   */
  static Operation read(String method, String path, Element item, Element operation, Element root) {
    Map<String, Parameter> parameters = new LinkedHashMap<>();
    List<Element> all = new ArrayList<>(item.get("parameters").elements());
    all.addAll(operation.get("parameters").elements());
    for (Element each : all) {
      Parameter.read(each).ifPresent(it -> parameters.put(it.key(), it));
    }
    Element responses = operation.get("responses");
    responses.members();
    String upper = method.toUpperCase(Locale.ROOT);
    return new Operation(
        upper + " " + path,
        upper,
        List.copyOf(parameters.values()),
        operation.get("requestBody"),
        responses,
        Credentials.of(operation, root),
        operation);
  }

  /** Returns the media types of its responses, by status. */
  Map<String, List<String>> documented() {
    Map<String, List<String>> statuses = new LinkedHashMap<>();
    responses
        .members()
        .keySet()
        .forEach(
            status ->
                statuses.put(
                    status, List.copyOf(responses.get(status).get("content").members().keySet())));
    return statuses;
  }

  /** Returns the entry for a status: the status itself, its range ({@code 4XX}), or the default. */
  Optional<Element> response(int status) {
    return responseNamed(status)
        .or(() -> Optional.of(responses.get("default")))
        .filter(Element::isThere);
  }

  /** Returns the entry for a status, if the status or its range is listed. */
  Optional<Element> responseNamed(int status) {
    Element own = responses.get(Integer.toString(status));
    Element hundred = responses.get(status / 100 + "XX");
    return Optional.of(own.isThere() ? own : hundred).filter(Element::isThere);
  }

  List<Parameter> parametersIn(String place) {
    return parameters.stream().filter(it -> it.in().equals(place)).toList();
  }

  /** Returns the statuses that are described. */
  String statuses() {
    List<String> names = new ArrayList<>();
    responses.json().fieldNames().forEachRemaining(names::add);
    names.removeIf(name -> name.startsWith("x-"));
    return names.isEmpty() ? "none" : String.join(", ", names);
  }
}
