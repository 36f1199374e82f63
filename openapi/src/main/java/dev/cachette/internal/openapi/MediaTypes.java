// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.MediaType;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** The media types of a body, as listed under {@code content}. */
final class MediaTypes {

  private MediaTypes() {}

  /** Returns the entry for a media type: the type itself, a range of it, or all. */
  static Optional<Element> described(Element content, MediaType type) {
    Map<String, Element> members = content.members();
    String whole = type.type() + "/" + type.subtype();
    for (String wanted : List.of(whole, type.type() + "/*", "*/*")) {
      for (Map.Entry<String, Element> member : members.entrySet()) {
        if (bare(member.getKey()).equals(wanted)) {
          return Optional.of(member.getValue());
        }
      }
    }
    return Optional.empty();
  }

  /** Returns a media type without its parameters, in lower case. */
  static String bare(String name) {
    return name.split(";", 2)[0].strip().toLowerCase(Locale.ROOT);
  }

  /** Returns the described types, in words. */
  static String listed(Element content) {
    return String.join(", ", content.members().keySet());
  }
}
