// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Multipart bodies (RFC 2046 section 5.1, RFC 7578). */
final class MultipartValues implements ValueFormat {

  private static final Pattern NAME =
      Pattern.compile(
          "(?i)content-disposition:[^\\r\\n]*?;\\s*name=(?:\"([^\"\\r\\n]*)\"|([^;\\s]+))");
  private static final Pattern TYPE = Pattern.compile("(?im)^content-type:[ \\t]*([^\\r\\n]+)");
  private static final Pattern ENCODED =
      Pattern.compile("(?im)^content-transfer-encoding:[ \\t]*base64");
  private static final Pattern FIRST_LINE = Pattern.compile("\\A--([^\\r\\n]{1,70})\\r?\\n");
  private static final Pattern HEAD_END = Pattern.compile("\\r?\\n\\r?\\n");

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.name().startsWith("multipart/");
  }

  @Override
  public boolean isLike(String text) {
    return text.startsWith("--") && FIRST_LINE.matcher(text).find() && NAME.matcher(text).find();
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    Optional<String> boundary = type.boundary().or(() -> firstLine(text));
    if (boundary.isEmpty() || !text.contains("--" + boundary.get())) {
      return Optional.empty();
    }
    String delimiter = "--" + boundary.get();
    StringBuilder changed = new StringBuilder(text.length() + 16);
    int from = text.indexOf(delimiter);
    changed.append(text, 0, from);
    while (from >= 0) {
      int next = text.indexOf("\n" + delimiter, from);
      int end = next < 0 ? text.length() : next;
      changed.append(part(text.substring(from, end), change));
      from = next;
      if (next >= 0) {
        changed.append('\n');
        from = next + 1;
      }
    }
    return Optional.of(changed.toString());
  }

  private static Optional<String> firstLine(String text) {
    Matcher first = FIRST_LINE.matcher(text);
    return first.find() ? Optional.of(first.group(1).strip()) : Optional.empty();
  }

  /** Returns a part, from its boundary to the end of its content. */
  private static String part(String part, ValueChange change) {
    Matcher end = HEAD_END.matcher(part);
    if (!end.find()) {
      return part;
    }
    String head = part.substring(0, end.end());
    String rest = part.substring(end.end());
    String close = rest.endsWith("\r") ? "\r" : "";
    String content = rest.substring(0, rest.length() - close.length());
    Matcher named = NAME.matcher(head);
    String name = !named.find() ? "" : named.group(1) == null ? named.group(2) : named.group(1);
    Matcher typed = TYPE.matcher(head);
    BodyType type = typed.find() ? BodyType.of(typed.group(1)) : BodyType.NONE;
    if (ENCODED.matcher(head).find()) {
      return head + change.of(Value.string(name, content)) + close;
    }
    return head + content(type, name, content, change) + close;
  }

  private static String content(BodyType type, String name, String content, ValueChange change) {
    ValueChange named =
        value -> change.of(value.name().isEmpty() ? Value.string(name, value.text()) : value);
    String whole = change.of(Value.string(name, content));
    // A part with a secret name is secret as a whole.
    return whole.equals(content) ? ValueFormats.change(type, content, named) : whole;
  }
}
