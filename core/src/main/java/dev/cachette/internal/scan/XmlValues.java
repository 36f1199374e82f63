// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import dev.cachette.internal.text.Escapes;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * XML 1.0 and HTML. Read without a parser: places in the text are needed, and text that is not
 * well-formed has values, too.
 */
final class XmlValues implements ValueFormat {

  private static final Pattern MARKUP =
      Pattern.compile(
          "<!--.*?-->|<!\\[CDATA\\[.*?\\]\\]>|<\\?.*?\\?>|<![^>]*>"
              + "|<(/?)([\\w.:-]+)((?:[^<>\"']|\"[^\"]*+\"|'[^']*+')*+)(?:>|\\z)",
          Pattern.DOTALL);
  private static final Pattern ATTRIBUTE =
      Pattern.compile(
          "([\\w.:-]+)\\s*=\\s*(?:\"([^\"]*+)\"|'([^']*+)'|([^\\s\"'<>=`][^\\s\"'<>`]*+))");
  private static final Pattern ENTITY =
      Pattern.compile("&(?:#(\\d{1,7})|#x([0-9A-Fa-f]{1,6})|(amp|lt|gt|quot|apos));");

  /** Attributes that name what is beside or below them: {@code <add key="password" value="x"/>}. */
  private static final Set<String> NAMING = Set.of("name", "key", "field", "id", "property");

  private static final Set<String> NAMED = Set.of("value", "val", "content", "data", "string");

  /** Attributes that have the value of their element: {@code <password value="x"/>}. */
  private static final Set<String> VALUES = Set.of("value", "val", "content");

  /** An element with a key and a value, whatever their names. */
  private static final String ENTRY = "entry";

  private static final String COMMENT = "<!--";

  private static final String CDATA = "<![CDATA[";

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isKindOf("xml") || type.name().endsWith("html");
  }

  @Override
  public boolean isLike(String text) {
    String bare = text.strip();
    return bare.length() > 3
        && bare.charAt(0) == '<'
        && (Character.isLetter(bare.charAt(1)) || bare.charAt(1) == '?' || bare.charAt(1) == '!')
        && (bare.endsWith(">") || bare.contains("</"));
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    return Optional.of(new Scan(text, change).changed());
  }

  /** An open element. */
  private static final class Open {

    private final @Nullable Open parent;
    private final String name;
    private final @Nullable String naming;

    /** The text of a child that names the next one: {@code <key>password</key>}. */
    private @Nullable String namingNext;

    Open(@Nullable Open parent, String name, @Nullable String naming) {
      this.parent = parent;
      this.name = name;
      this.naming = naming;
    }

    /** Returns true for a child that names the next one. */
    boolean isNamedBy(Open child) {
      return NAMING.contains(child.name.toLowerCase(Locale.ROOT))
          || namingNext == null && name.equalsIgnoreCase(ENTRY);
    }

    /** Returns the name of what this is the value of. */
    String valueName() {
      if (naming != null) {
        return naming;
      }
      if (parent == null || !NAMED.contains(name.toLowerCase(Locale.ROOT))) {
        return name;
      }
      return parent.namingNext != null ? parent.namingNext : parent.valueName();
    }
  }

  /** One pass over a text. */
  private static final class Scan {

    private final String text;
    private final ValueChange change;
    private final StringBuilder out;
    private final Deque<Open> open = new ArrayDeque<>();

    Scan(String text, ValueChange change) {
      this.text = text;
      this.change = change;
      this.out = new StringBuilder(text.length() + 16);
    }

    String changed() {
      Matcher markup = MARKUP.matcher(text);
      int from = 0;
      while (markup.find(from)) {
        characters(text.substring(from, markup.start()));
        String tag = markup.group();
        if (tag.startsWith(CDATA)) {
          String content = tag.substring(CDATA.length(), tag.length() - "]]>".length());
          out.append(CDATA).append(value(content)).append("]]>");
        } else if (tag.startsWith(COMMENT) && tag.length() > 7) {
          aside(tag, COMMENT.length(), tag.length() - "-->".length());
        } else if (tag.startsWith("<?") && tag.length() > 4) {
          aside(tag, 2, tag.length() - 2);
        } else if (!tag.endsWith(">") && !ATTRIBUTE.matcher(tag).find()) {
          characters(tag);
        } else if (markup.group(2) == null) {
          out.append(tag);
        } else if (!markup.group(1).isEmpty()) {
          open.pollFirst();
          out.append(tag);
        } else {
          element(tag, local(markup.group(2)), markup.group(3));
        }
        from = markup.end();
      }
      characters(text.substring(from));
      return out.toString();
    }

    /** Text of a comment or an instruction. */
    private void aside(String tag, int start, int end) {
      String old = tag.substring(start, end);
      String now = change.of(Value.string("", old));
      out.append(tag, 0, start).append(now).append(tag, end, tag.length());
    }

    private void element(String tag, String name, String attributes) {
      List<String> naming = new ArrayList<>();
      Matcher attribute = ATTRIBUTE.matcher(attributes);
      while (attribute.find()) {
        String lower = local(attribute.group(1)).toLowerCase(Locale.ROOT);
        if (lower.equals("type") && raw(attribute).equalsIgnoreCase("password")) {
          naming.add(0, "password");
        } else if (NAMING.contains(lower)) {
          naming.add(unescaped(raw(attribute)));
        }
      }
      Open element = new Open(open.peek(), name, naming.isEmpty() ? null : naming.get(0));
      StringBuilder changed = new StringBuilder();
      attribute.reset();
      while (attribute.find()) {
        String attributeName = local(attribute.group(1));
        String lower = attributeName.toLowerCase(Locale.ROOT);
        String valueName = element.naming != null ? element.naming : name;
        String old = unescaped(raw(attribute));
        String now =
            change.of(Value.string(VALUES.contains(lower) ? valueName : attributeName, old));
        String whole = attribute.group();
        // HTML needs no quotes.
        String quote = attribute.group(4) != null ? "" : whole.substring(whole.length() - 1);
        int end = whole.length() - raw(attribute).length() - quote.length();
        attribute.appendReplacement(
            changed,
            Matcher.quoteReplacement(
                now.equals(old)
                    ? whole
                    : whole.substring(0, end)
                        + (quote.isEmpty() ? '"' + Escapes.xml(now) + '"' : Escapes.xml(now))
                        + quote));
      }
      attribute.appendTail(changed);
      // A tag that is cut has none.
      String close = tag.endsWith(">") ? ">" : "";
      int start = tag.length() - close.length() - attributes.length();
      out.append(tag, 0, start).append(changed).append(close);
      if (!attributes.endsWith("/")) {
        open.push(element);
      }
    }

    private void characters(String raw) {
      if (raw.isBlank()) {
        out.append(raw);
        return;
      }
      String old = unescaped(raw);
      String now = value(old);
      out.append(now.equals(old) ? raw : Escapes.xml(now));
    }

    private String value(String content) {
      if (content.isBlank()) {
        return content;
      }
      String bare = content.strip();
      Open parent = open.isEmpty() ? null : open.peek().parent;
      String name = open.isEmpty() ? "" : open.peek().valueName();
      if (parent != null && parent.isNamedBy(open.peek())) {
        parent.namingNext = bare;
      }
      String now = change.of(Value.string(name, bare));
      return now.equals(bare) ? content : content.replace(bare, now);
    }

    private static String raw(Matcher attribute) {
      String quoted = attribute.group(2) == null ? attribute.group(3) : attribute.group(2);
      return quoted == null ? attribute.group(4) : quoted;
    }
  }

  private static String local(String name) {
    return name.substring(name.indexOf(':') + 1);
  }

  private static String unescaped(String raw) {
    if (raw.indexOf('&') < 0) {
      return raw;
    }
    return ENTITY.matcher(raw).replaceAll(entity -> Matcher.quoteReplacement(character(entity)));
  }

  private static String character(MatchResult entity) {
    if (entity.group(3) != null) {
      return switch (entity.group(3)) {
        case "amp" -> "&";
        case "lt" -> "<";
        case "gt" -> ">";
        case "quot" -> "\"";
        default -> "'";
      };
    }
    int code =
        entity.group(1) != null
            ? Integer.parseInt(entity.group(1))
            : Integer.parseInt(entity.group(2), 16);
    return Character.isValidCodePoint(code) ? Character.toString(code) : entity.group();
  }
}
