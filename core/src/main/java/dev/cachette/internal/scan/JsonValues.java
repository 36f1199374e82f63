package dev.cachette.internal.scan;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.io.JsonStringEncoder;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** JSON (RFC 8259), and several JSON values after each other, such as lines. */
final class JsonValues implements ValueFormat {

  private static final JsonFactory FACTORY = new JsonFactory();

  /** Members that name the member beside them: {@code {"name": "password", "value": "x"}}. */
  private static final Set<String> NAMING =
      Set.of("name", "key", "field", "id", "parameter", "header", "property");

  private static final Set<String> NAMED =
      Set.of("value", "val", "content", "data", "text", "secretvalue");

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isKindOf("json") || type.name().endsWith("json") || type.name().endsWith("jsonl");
  }

  @Override
  public boolean isLike(String text) {
    String bare = text.strip();
    return bare.length() > 1
        && (bare.charAt(0) == '{' && bare.endsWith("}")
            || bare.charAt(0) == '[' && bare.endsWith("]")
            || bare.charAt(0) == '"' && bare.endsWith("\""));
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    List<Token> tokens;
    try {
      tokens = tokens(text);
    } catch (IOException malformed) {
      return Optional.empty();
    }
    StringBuilder changed = new StringBuilder(text.length() + 16);
    int copied = 0;
    for (Token token : tokens) {
      String name = token.name();
      String now = change.of(new Value(name, token.text, token.kind));
      if (!now.equals(token.text)) {
        changed.append(text, copied, token.start);
        boolean bare = token.kind == Value.Kind.NUMBER && now.matches("-?[0-9]+");
        changed.append(bare ? now : '"' + escaped(now) + '"');
        copied = token.end;
      }
    }
    return Optional.of(copied == 0 ? text : changed.append(text, copied, text.length()).toString());
  }

  /** Returns text escaped for a JSON string. */
  static String escaped(String text) {
    return new String(JsonStringEncoder.getInstance().quoteAsString(text));
  }

  /** An object or array that is open, with what names its values. */
  private static final class Level {
    private final String name;

    /** An array within an array, such as one of pairs. */
    private final boolean isInner;

    private final boolean isArray;

    private final List<Token> tokens = new ArrayList<>();
    private @Nullable String naming;

    Level(String name, boolean isArray, boolean isInner) {
      this.name = name;
      this.isArray = isArray;
      this.isInner = isInner;
    }
  }

  private record Token(
      Level level, String before, String member, String text, Value.Kind kind, int start, int end) {

    String name() {
      boolean pair = level.isInner && level.tokens.size() == 2 && level.tokens.get(1) == this;
      if (pair && level.tokens.get(0).kind == Value.Kind.STRING) {
        // Such as the entries of an array of pairs: ["password", "x"].
        return level.tokens.get(0).text;
      }
      if (level.isArray && before.startsWith("--") && !text.startsWith("-")) {
        // The arguments of a program: ["--password", "x"].
        return before.substring(2);
      }
      if (!NAMED.contains(member.toLowerCase(Locale.ROOT))) {
        return member;
      }
      return level.naming != null ? level.naming : level.name.isEmpty() ? member : level.name;
    }
  }

  private static List<Token> tokens(String text) throws IOException {
    List<Token> tokens = new ArrayList<>();
    Deque<Level> levels = new ArrayDeque<>();
    levels.push(new Level("", false, false));
    String member = "";
    try (JsonParser parser = FACTORY.createParser(text)) {
      for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
        switch (token) {
          case START_OBJECT, START_ARRAY -> {
            boolean inArray = parser.getParsingContext().getParent().inArray();
            boolean isArray = token == JsonToken.START_ARRAY;
            levels.push(new Level(member, isArray, inArray && isArray));
          }
          case END_OBJECT, END_ARRAY -> {
            levels.pop();
          }
          case FIELD_NAME -> member = parser.currentName();
          default -> {
            Level level = levels.peek();
            boolean inObject = parser.getParsingContext().inObject();
            String name = inObject ? member : level.name;
            int start = (int) parser.currentTokenLocation().getCharOffset();
            String value = parser.getText();
            int end = (int) parser.currentLocation().getCharOffset();
            Value.Kind kind = kind(token);
            if (kind == Value.Kind.STRING
                && inObject
                && NAMING.contains(name.toLowerCase(Locale.ROOT))) {
              level.naming = value;
            }
            if (kind == Value.Kind.STRING && name.equals("path") && value.startsWith("/")) {
              // JSON Patch (RFC 6902) names a place.
              level.naming = value.substring(value.lastIndexOf('/') + 1);
            }
            int length = kind == Value.Kind.STRING ? end - start : value.length();
            int count = level.tokens.size();
            String before = count == 0 ? "" : level.tokens.get(count - 1).text;
            Token found = new Token(level, before, name, value, kind, start, start + length);
            level.tokens.add(found);
            tokens.add(found);
          }
        }
        if (token == JsonToken.END_OBJECT || token == JsonToken.END_ARRAY) {
          member = levels.peek().name;
        }
      }
    }
    return tokens;
  }

  private static Value.Kind kind(JsonToken token) {
    return switch (token) {
      case VALUE_STRING -> Value.Kind.STRING;
      case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> Value.Kind.NUMBER;
      default -> Value.Kind.LITERAL;
    };
  }
}
