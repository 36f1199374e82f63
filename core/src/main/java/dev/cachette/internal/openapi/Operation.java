package dev.cachette.internal.openapi;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * One operation of a description.
 *
 * @param title what it is called: {@code POST /bookings}
 * @param method its method, in upper case
 * @param parameters its parameters, with those of its path
 * @param body the content that it takes; missing if it takes none
 * @param responses its responses
 * @param credentials what it asks its callers to show
 * @param at where it is described
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
   * An operation as it is described.
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

  /** What is described for a status: it itself, its hundred ({@code 4XX}), or the default. */
  Optional<Element> response(int status) {
    return responseNamed(status)
        .or(() -> Optional.of(responses.get("default")))
        .filter(Element::isThere);
  }

  /** What is described for a status, where it or its hundred is named. */
  Optional<Element> responseNamed(int status) {
    Element own = responses.get(Integer.toString(status));
    Element hundred = responses.get(status / 100 + "XX");
    return Optional.of(own.isThere() ? own : hundred).filter(Element::isThere);
  }

  List<Parameter> parametersIn(String place) {
    return parameters.stream().filter(it -> it.in().equals(place)).toList();
  }

  /** The statuses that are described. */
  String statuses() {
    List<String> names = new ArrayList<>();
    responses.json().fieldNames().forEachRemaining(names::add);
    names.removeIf(name -> name.startsWith("x-"));
    return names.isEmpty() ? "none" : String.join(", ", names);
  }
}
