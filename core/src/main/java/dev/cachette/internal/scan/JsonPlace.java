// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.Locale;
import java.util.Set;

/** A value in JSON, with its place in the text. Its name depends on what is around it. */
final class JsonPlace {

  /** The members of a private or symmetric key (RFC 7518 section 6). */
  private static final Set<String> OF_KEYS = Set.of("d", "p", "q", "dp", "dq", "qi", "k");

  private static final Set<String> NAMED =
      Set.of("value", "val", "content", "data", "text", "secretvalue");

  private final String text;
  private final Value.Kind kind;
  private final int start;
  private final int end;

  /** Set when it is added to its container. */
  private JsonContainer container = JsonContainer.ROOT;

  private String member = "";
  private int index;

  JsonPlace(String text, Value.Kind kind, int start, int end) {
    this.text = text;
    this.kind = kind;
    this.start = start;
    this.end = end;
  }

  /** Returns this value in an object or array. */
  JsonPlace in(JsonContainer found, String memberName, int number) {
    container = found;
    member = memberName;
    index = number;
    return this;
  }

  String text() {
    return text;
  }

  Value.Kind kind() {
    return kind;
  }

  /** Returns the position of its first character in the text, or of its quote. */
  int start() {
    return start;
  }

  /** Returns the position after it. */
  int end() {
    return end;
  }

  /** Returns the member that it is the value of, if it is one. */
  String member() {
    return member;
  }

  /** Returns the name that says the most about it. */
  String name() {
    if (container.isPair() && index == 1 && container.get(0).kind == Value.Kind.STRING) {
      // Such as the entries of an array of pairs: ["password", "x"].
      return container.get(0).text;
    }
    if (container.isArray() && index > 0) {
      String before = container.get(index - 1).text;
      if (before.startsWith("--") && !text.startsWith("-")) {
        // The arguments of a program: ["--password", "x"].
        return before.substring(2);
      }
    }
    if (OF_KEYS.contains(member) && container.has("kty")) {
      return "privateKey";
    }
    return NAMED.contains(member.toLowerCase(Locale.ROOT))
        ? container.nameOfValue().orElse(member)
        : container.nameOfAll().orElse(member);
  }
}
