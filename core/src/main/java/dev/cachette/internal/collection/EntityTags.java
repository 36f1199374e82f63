// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.collection;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;

/** Entity tags of objects (RFC 9110 section 8.8.3): equal objects have equal tags. */
final class EntityTags {

  private EntityTags() {}

  /** Returns the tag, with its quotes. */
  static String of(ObjectNode object) {
    byte[] text = Json.text(object).getBytes(StandardCharsets.UTF_8);
    CRC32 checksum = new CRC32();
    checksum.update(text);
    return String.format("\"%08x-%x\"", checksum.getValue(), text.length);
  }
}
