// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import java.util.List;
import java.util.Optional;

/**
 * The places in a body that are not compared.
 *
 * @param json JSONPaths (RFC 9535)
 * @param xpath XPath expressions
 * @param fields names of form fields and of parts
 */
public record Ignored(List<String> json, List<String> xpath, List<String> fields) {

  /** Everything is compared. */
  public static final Ignored NOTHING = new Ignored(List.of(), List.of(), List.of());

  static Ignored json(String path) {
    return new Ignored(List.of(path), List.of(), List.of());
  }

  static Ignored xpath(String expression) {
    return new Ignored(List.of(), List.of(expression), List.of());
  }

  static Ignored field(String name) {
    return new Ignored(List.of(), List.of(), List.of(name));
  }

  /** Returns what ignores the place of a difference; empty if places of this kind cannot vary. */
  public static Optional<Ignored> at(String place) {
    if (place.startsWith("$")) {
      return Optional.of(json(place));
    }
    if (place.startsWith("/")) {
      return Optional.of(xpath(XmlChanges.inAnyNamespace(place)));
    }
    if (place.startsWith(FormFormat.FIELD)) {
      return Optional.of(field(place.substring(FormFormat.FIELD.length())));
    }
    return place.startsWith(MultipartFormat.PART)
        ? Optional.of(field(place.substring(MultipartFormat.PART.length()).split(", ")[0]))
        : Optional.empty();
  }
}
