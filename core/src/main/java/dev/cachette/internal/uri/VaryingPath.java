// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.uri;

import java.util.List;
import java.util.Optional;

/** Paths with segments that vary, such as identifiers. */
public final class VaryingPath {

  private VaryingPath() {}

  /** Returns the template that a path matches, or else the path. */
  public static String of(String path, List<String> templates) {
    for (String template : templates) {
      if (matches(path.split("/", -1), template.split("/", -1))) {
        return template;
      }
    }
    return path;
  }

  private static boolean matches(String[] path, String[] template) {
    if (path.length != template.length) {
      return false;
    }
    for (int at = 0; at < path.length; at++) {
      if (template[at].indexOf('{') < 0 && !template[at].equals(path[at])) {
        return false;
      }
    }
    return true;
  }

  /** Returns a template for two paths that differ in one segment, not the first. */
  public static Optional<String> between(String one, String other) {
    String[] left = one.split("/", -1);
    String[] right = other.split("/", -1);
    int differing = -1;
    for (int at = 0; left.length == right.length && at < left.length; at++) {
      if (!left[at].equals(right[at])) {
        if (differing >= 0 || at < 2 || left[at].isEmpty() || right[at].isEmpty()) {
          return Optional.empty();
        }
        differing = at;
      }
    }
    if (differing < 0) {
      return Optional.empty();
    }
    left[differing] = "{id}";
    return Optional.of(String.join("/", left));
  }
}
