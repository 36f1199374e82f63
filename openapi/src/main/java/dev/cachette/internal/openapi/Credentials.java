// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.Request;
import dev.cachette.internal.content.Cookies;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The credentials that an operation requires: one of several sets. Their values are not checked.
 *
 * @param alternatives the sets, one of which is enough; none if nothing is required
 */
record Credentials(List<List<Scheme>> alternatives) {

  /**
   * One of the schemes.
   *
   * @param title the credentials in words
   * @param in their place: {@code header}, {@code query} or {@code cookie}; empty if it cannot be
   *     checked
   * @param name the name of the header, parameter or cookie
   * @param prefix the beginning of the value
   */
  record Scheme(String title, String in, String name, String prefix) {

    boolean isShownBy(Request request) {
      Optional<String> shown =
          switch (in) {
            case "header" -> request.headers().first(name);
            case "query" -> request.uri().query().first(name);
            case "cookie" -> Cookies.in(request).all(name).stream().findFirst();
            default -> Optional.of("");
          };
      return shown
          .filter(value -> value.regionMatches(true, 0, prefix, 0, prefix.length()))
          .isPresent();
    }
  }

  static Credentials of(Element operation, Element root) {
    Element own = operation.get("security");
    List<List<Scheme>> alternatives = new ArrayList<>();
    for (Element each : (own.isThere() ? own : root.get("security")).elements()) {
      List<Scheme> schemes = new ArrayList<>();
      each.json()
          .fieldNames()
          .forEachRemaining(
              name -> {
                Element scheme = root.get("components").get("securitySchemes").get(name);
                if (!scheme.isThere()) {
                  throw each.malformed("unknown security scheme \"" + name + "\" in components.");
                }
                schemes.add(scheme(scheme));
              });
      alternatives.add(schemes);
    }
    return new Credentials(alternatives);
  }

  private static Scheme scheme(Element scheme) {
    return switch (scheme.text("type").orElse("")) {
      case "apiKey" -> {
        String in = scheme.text("in").orElse("header");
        String name = scheme.text("name").orElse("");
        String place = in.equals("query") ? "parameter" : in;
        yield new Scheme("the " + place + " " + name, in, name, "");
      }
      case "http" -> {
        String kind = scheme.text("scheme").orElse("bearer").toLowerCase(Locale.ROOT);
        yield authorization(Character.toUpperCase(kind.charAt(0)) + kind.substring(1));
      }
      case "oauth2", "openIdConnect" -> authorization("Bearer");
      case "mutualTLS" -> new Scheme("a client certificate", "", "", "");
      default ->
          throw scheme.malformed(
              "the type of a security scheme must be apiKey, http, oauth2, openIdConnect or"
                  + " mutualTLS.");
    };
  }

  private static Scheme authorization(String kind) {
    return new Scheme(
        "the header authorization with " + kind + " credentials",
        "header",
        "authorization",
        kind + " ");
  }

  /** Returns the query parameters for credentials. */
  Set<String> parameters() {
    return alternatives.stream()
        .flatMap(List::stream)
        .filter(it -> it.in().equals("query"))
        .map(Scheme::name)
        .collect(Collectors.toSet());
  }

  /** Returns why credentials are missing; empty if they are present. */
  Optional<Check> missing(Request request, Element at) {
    boolean shown =
        alternatives.isEmpty()
            || alternatives.stream()
                .anyMatch(set -> set.stream().allMatch(it -> it.isShownBy(request)));
    if (shown) {
      return Optional.empty();
    }
    String wanted =
        alternatives.stream()
            .map(set -> set.stream().map(Scheme::title).collect(Collectors.joining(" and ")))
            .collect(Collectors.joining(", or "));
    return Optional.of(
        Check.missed("credentials", 0, Difference.of(at.asks(wanted), actual(request, wanted))));
  }

  /** Returns what is shown instead: a part of a set, or credentials of another kind. */
  private String actual(Request request, String wanted) {
    Optional<List<Scheme>> closest =
        alternatives.stream()
            .filter(set -> set.stream().anyMatch(it -> it.isShownBy(request)))
            .min(Comparator.comparingLong(set -> lacking(set, request).size()));
    boolean otherScheme =
        request.headers().has("authorization") && wanted.contains("authorization");
    if (closest.isEmpty()) {
      return otherScheme ? "an authorization with another scheme" : Difference.MISSING;
    }
    String lacking =
        lacking(closest.get(), request).stream()
            .map(Scheme::title)
            .collect(Collectors.joining(" and "));
    return "all but "
        + lacking
        + (otherScheme && lacking.contains("authorization") ? ", which has another scheme" : "");
  }

  private static List<Scheme> lacking(List<Scheme> set, Request request) {
    return set.stream().filter(it -> !it.isShownBy(request)).toList();
  }
}
