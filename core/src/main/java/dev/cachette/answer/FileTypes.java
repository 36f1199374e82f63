// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import java.util.Locale;
import java.util.Map;

/** Content types by file name extension. */
final class FileTypes {

  private static final Map<String, String> TYPES =
      Map.ofEntries(
          Map.entry("json", "application/json"),
          Map.entry("xml", "application/xml"),
          Map.entry("html", "text/html; charset=utf-8"),
          Map.entry("txt", "text/plain; charset=utf-8"),
          Map.entry("csv", "text/csv; charset=utf-8"),
          Map.entry("css", "text/css; charset=utf-8"),
          Map.entry("js", "text/javascript; charset=utf-8"),
          Map.entry("yaml", "application/yaml"),
          Map.entry("pdf", "application/pdf"),
          Map.entry("png", "image/png"),
          Map.entry("jpg", "image/jpeg"),
          Map.entry("gif", "image/gif"),
          Map.entry("svg", "image/svg+xml"),
          Map.entry("zip", "application/zip"));

  private FileTypes() {}

  static String of(String name) {
    int dot = name.lastIndexOf('.');
    String ending = name.substring(dot + 1).toLowerCase(Locale.ROOT);
    return TYPES.getOrDefault(ending, "application/octet-stream");
  }
}
