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

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    List<JsonPlace> places;
    try {
      places = places(text);
    } catch (IOException malformed) {
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
    return Optional.of(copied == 0 ? text : changed.append(text, copied, text.length()).toString());
  }

  private static List<JsonPlace> places(String text) throws IOException {
    List<JsonPlace> places = new ArrayList<>();
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
    }
    return places;
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
