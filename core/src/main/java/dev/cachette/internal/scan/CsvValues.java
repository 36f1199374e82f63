// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Comma-separated values (RFC 4180) whose first line names the columns. */
final class CsvValues implements ValueFormat {

  private static final Set<String> TYPES =
      Set.of("text/csv", "application/csv", "text/tab-separated-values");

  @Override
  public boolean isNamedBy(BodyType type) {
    return TYPES.contains(type.name());
  }

  @Override
  public boolean isLike(String text) {
    return false;
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    List<String> names = new ArrayList<>();
    StringBuilder changed = new StringBuilder(text.length() + 16);
    int column = 0;
    boolean first = true;
    for (int at = 0; at < text.length(); ) {
      int end = endOf(text, at);
      String raw = text.substring(at, end);
      String value = unquoted(raw);
      if (first) {
        names.add(value.strip());
        changed.append(raw);
      } else {
        String name = column < names.size() ? names.get(column) : "";
        String now = change.of(Value.string(name, value));
        String field = raw.startsWith("\"") ? quoted(now) : now;
        changed.append(now.equals(value) ? raw : raw.endsWith("\r") ? field + "\r" : field);
      }
      if (end < text.length()) {
        char separator = text.charAt(end);
        changed.append(separator);
        column = separator == '\n' ? 0 : column + 1;
        first &= separator != '\n';
      }
      at = end + 1;
    }
    return Optional.of(changed.toString());
  }

  /** Returns the position after a field. */
  private static int endOf(String text, int from) {
    boolean inQuotes = false;
    int at = from;
    for (; at < text.length(); at++) {
      char c = text.charAt(at);
      if (c == '"') {
        inQuotes = !inQuotes;
      } else if (!inQuotes && (c == ',' || c == ';' || c == '\t' || c == '\n')) {
        break;
      }
    }
    return at;
  }

  private static String unquoted(String raw) {
    String bare = raw.strip();
    return bare.length() > 1 && bare.startsWith("\"") && bare.endsWith("\"")
        ? bare.substring(1, bare.length() - 1).replace("\"\"", "\"")
        : bare;
  }

  private static String quoted(String text) {
    return '"' + text.replace("\"", "\"\"") + '"';
  }
}
