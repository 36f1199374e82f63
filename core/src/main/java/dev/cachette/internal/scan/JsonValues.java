// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import dev.cachette.internal.text.Escapes;
import dev.cachette.internal.text.JsonStreams;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** JSON (RFC 8259), and several JSON values after each other, such as lines. */
final class JsonValues implements ValueFormat {

  private static final JsonFactory FACTORY = JsonStreams.standard();

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

  /** Returns true for the beginning of an object or array, whatever follows. */
  static boolean isBegun(String text) {
    int first = afterSpace(text, 0);
    int second = afterSpace(text, first + 1);
    return second < text.length()
        && "{[".indexOf(text.charAt(first)) >= 0
        && "\"{[".indexOf(text.charAt(second)) >= 0;
  }

  private static int afterSpace(String text, int from) {
    int at = from;
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
    return at;
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    List<JsonPlace> places = new ArrayList<>();
    boolean isWhole = addPlaces(text, places);
    if (!isWhole && places.isEmpty()) {
      return Optional.empty();
    }
    StringBuilder changed = new StringBuilder(text.length() + 16);
    int copied = 0;
    for (JsonPlace place : places) {
      String now = change.of(new Value(place.name(), place.text(), place.kind()));
      if (!now.equals(place.text())) {
        changed.append(text, copied, place.start());
        boolean bare = place.kind() == Value.Kind.NUMBER && now.matches("-?[0-9]+");
        changed.append(bare ? now : '"' + Escapes.json(now) + '"');
        copied = place.end();
      }
    }
    if (isWhole) {
      return Optional.of(
          copied == 0 ? text : changed.append(text, copied, text.length()).toString());
    }
    int end = places.get(places.size() - 1).end();
    changed.append(text, copied, end);
    // What is behind a syntax error has no structure.
    changed.append(change.of(Value.string("", text.substring(end))));
    return Optional.of(changed.toString());
  }

  /** Adds the places of values up to the first syntax error; returns false if there is one. */
  private static boolean addPlaces(String text, List<JsonPlace> places) {
    JsonContainer open = JsonContainer.ROOT.within("", false);
    String member = "";
    try (JsonParser parser = FACTORY.createParser(text)) {
      for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
        switch (token) {
          case START_OBJECT, START_ARRAY ->
              open = open.within(member, token == JsonToken.START_ARRAY);
          case END_OBJECT, END_ARRAY -> {
            open = open.parent();
            member = open.name();
          }
          case FIELD_NAME -> member = parser.currentName();
          default -> {
            String name = open.isArray() || open.isRoot() ? open.name() : member;
            places.add(open.add(name, place(parser, kind(token))));
          }
        }
      }
      return true;
    } catch (IOException malformed) {
      return false;
    }
  }

  private static JsonPlace place(JsonParser parser, Value.Kind kind) throws IOException {
    int start = (int) parser.currentTokenLocation().getCharOffset();
    String value = parser.getText();
    int end =
        kind == Value.Kind.STRING
            ? (int) parser.currentLocation().getCharOffset()
            : start + value.length();
    return new JsonPlace(value, kind, start, end);
  }

  private static Value.Kind kind(JsonToken token) {
    return switch (token) {
      case VALUE_STRING -> Value.Kind.STRING;
      case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> Value.Kind.NUMBER;
      default -> Value.Kind.LITERAL;
    };
  }
}
