// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * A node with its place in the document.
 *
 * @param path the place as a JSONPath, in shorthand if possible: {@code $.vessel.name}
 * @param node the node
 */
public record Located(String path, JsonNode node) {

  /** Returns the root of a document. */
  public static Located root(JsonNode node) {
    return new Located("$", node);
  }

  /** Returns the member of this object. */
  public Located member(String name) {
    return new Located(pathOfMember(path, name), node.path(name));
  }

  /** Returns the element of this array. */
  public Located element(int index) {
    return new Located(path + "[" + index + "]", node.path(index));
  }

  /** Returns the name of the closest member that contains it; empty for the root. */
  public String name() {
    String bare = path.replaceAll("(?:\\[[0-9]+])+$", "");
    if (bare.endsWith("']")) {
      return bare.substring(bare.lastIndexOf("['") + 2, bare.length() - 2);
    }
    return bare.substring(Math.max(bare.lastIndexOf('.'), bare.lastIndexOf('$')) + 1);
  }

  /** Returns the name in shorthand if possible, otherwise in brackets and quotes. */
  private static String pathOfMember(String path, String name) {
    return name.matches("[A-Za-z_][A-Za-z0-9_]*")
        ? path + "." + name
        : path + "['" + name.replace("\\", "\\\\").replace("'", "\\'") + "']";
  }
}
