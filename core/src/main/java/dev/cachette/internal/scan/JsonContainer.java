// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** An object or array in JSON, with what tells about the values in it. */
final class JsonContainer {

  /** Around the text. */
  static final JsonContainer ROOT = new JsonContainer(null, "", false);

  /** Members that name the member beside them: {@code {"name": "password", "value": "x"}}. */
  private static final Set<String> NAMING =
      Set.of("name", "key", "field", "id", "parameter", "header", "property");

  /** Containers whose names count more than the names within them, and what they hold. */
  private static final Map<String, String> HOLDING =
      Map.of("secrets", "secret", "cookies", "cookie");

  private final @Nullable JsonContainer parent;
  private final String name;
  private final boolean isArray;
  private final List<JsonPlace> values = new ArrayList<>();
  private @Nullable String naming;

  private JsonContainer(@Nullable JsonContainer parent, String name, boolean isArray) {
    this.parent = parent;
    this.name = name;
    this.isArray = isArray;
  }

  /** Returns a container in this one. */
  JsonContainer within(String nameOfIt, boolean array) {
    return new JsonContainer(this, nameOfIt, array);
  }

  JsonContainer parent() {
    return parent == null ? this : parent;
  }

  /** Returns the member that it is the value of, or that the array around it is. */
  String name() {
    return name;
  }

  boolean isArray() {
    return isArray;
  }

  /** Returns true for what is around the whole text. */
  boolean isRoot() {
    return parent == ROOT;
  }

  /** Adds a value. */
  JsonPlace add(String member, JsonPlace value) {
    values.add(value.in(this, member, values.size()));
    if (value.kind() == Value.Kind.STRING && !isArray) {
      if (NAMING.contains(member.toLowerCase(Locale.ROOT))) {
        naming = value.text();
      } else if (member.equals("path") && value.text().startsWith("/")) {
        // JSON Patch (RFC 6902) names a place.
        naming = value.text().substring(value.text().lastIndexOf('/') + 1);
      }
    }
    return value;
  }

  JsonPlace get(int index) {
    return values.get(index);
  }

  /** Returns true for two values in an array of arrays. */
  boolean isPair() {
    return isArray && parent != null && parent.isArray && values.size() == 2;
  }

  boolean has(String member) {
    return values.stream().anyMatch(value -> value.member().equals(member));
  }

  /** Returns the name of a member that is called {@code value}. */
  Optional<String> nameOfValue() {
    for (JsonContainer around = this; around != null; around = around.parent) {
      String holding = HOLDING.get(around.name.toLowerCase(Locale.ROOT));
      if (holding != null) {
        return Optional.of(holding);
      }
    }
    return Optional.ofNullable(naming).or(() -> Optional.of(name).filter(it -> !it.isEmpty()));
  }

  /** Returns the name of all members, if their own names are arbitrary. */
  Optional<String> nameOfAll() {
    boolean isMap = !isArray && parent != null && !parent.isArray;
    if (isMap && name.equalsIgnoreCase("cookies")) {
      return Optional.of(name);
    }
    boolean isOfSecret =
        isMap
            && (name.equals("data") || name.equals("stringData"))
            && parent.values.stream()
                .anyMatch(it -> it.member().equals("kind") && it.text().equals("Secret"));
    return isOfSecret ? Optional.of("secret") : Optional.empty();
  }
}
