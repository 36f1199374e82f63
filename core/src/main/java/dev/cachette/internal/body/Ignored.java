package dev.cachette.internal.body;

import java.util.List;

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
}
