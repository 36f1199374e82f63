// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.util.Arrays;
import java.util.List;

/** The entity tags of {@code If-Match} and {@code If-None-Match} (RFC 9110 section 13.1). */
public final class EntityTagList {

  private EntityTagList() {}

  /**
   * Returns true if a list has a tag, or a star.
   *
   * @param fields the values of all fields of the header
   * @param weakly whether weak tags match strong ones (RFC 9110 section 8.8.3.2)
   */
  public static boolean contains(List<String> fields, String etag, boolean weakly) {
    return fields.stream()
        .flatMap(field -> Arrays.stream(field.split(",")))
        .map(String::strip)
        .anyMatch(
            tag -> tag.equals("*") || (weakly ? bare(tag).equals(bare(etag)) : tag.equals(etag)));
  }

  private static String bare(String etag) {
    return etag.startsWith("W/") ? etag.substring(2) : etag;
  }
}
