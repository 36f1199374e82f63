// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.PrettyPrinter;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.JsonStreams;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** The default mapper, and the places of JSON syntax errors. */
public final class Json {

  private static final JsonFactory STREAMS = JsonStreams.standard();

  private Json() {}

  /**
   * Returns the default mapper, with every Jackson module on the classpath. It writes dates and
   * times as ISO 8601 strings.
   */
  public static ObjectMapper mapper() {
    return Default.MAPPER;
  }

  /**
   * Parses JSON text given by the user.
   *
   * @param what names the argument in the message
   * @throws IllegalArgumentException if it is not valid JSON; the message gives line and column
   */
  public static JsonNode read(String what, String text) {
    problemIn(text)
        .ifPresent(
            problem -> {
              throw Refusals.argument(
                  what
                      + " was given text that is not valid JSON, "
                      + problem
                      + "\nFix: correct it.");
            });
    return tree(text);
  }

  /**
   * Writes an object as JSON.
   *
   * @param what names the argument in the message
   * @throws IllegalArgumentException if the mapper cannot write it; the cause is Jackson's error
   */
  public static String write(String what, Object value, ObjectMapper mapper) {
    try {
      return mapper.writeValueAsString(value);
    } catch (JsonProcessingException unwritable) {
      throw Refusals.argument(
          String.format(
              "%s cannot be written: Jackson rejected an object of %s, %s\n"
                  + "Fix: add accessors or annotations, or pass a mapper that supports the type.",
              what, value.getClass(), unwritable.getOriginalMessage()),
          unwritable);
    }
  }

  /** Parses text that is known to be JSON; numbers keep all digits. */
  public static JsonNode tree(String text) {
    try (JsonParser parser = STREAMS.createParser(text)) {
      return parser.nextToken() == null ? MissingNode.getInstance() : tree(parser);
    } catch (JsonProcessingException malformed) {
      throw Refusals.argument(problem(malformed), malformed);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }

  /**
   * Reads the value at the current token; numbers keep all digits.
   *
   * @throws IOException if the parser fails
   */
  public static JsonNode tree(JsonParser parser) throws IOException {
    return JsonTrees.read(parser);
  }

  /** Returns a tree as JSON without white space. */
  public static String text(JsonNode tree) {
    return text(tree, null);
  }

  /**
   * Returns a tree as formatted JSON; without white space if the format is null.
   *
   * @throws IllegalArgumentException if it is nested more deeply than Jackson can write
   */
  public static String text(JsonNode tree, @Nullable PrettyPrinter layout) {
    StringWriter text = new StringWriter();
    try (JsonGenerator generator = STREAMS.createGenerator(text)) {
      generator.setPrettyPrinter(layout);
      JsonTrees.write(tree, generator);
    } catch (JsonProcessingException unwritable) {
      throw Refusals.argument(
          "it cannot be written as JSON: " + unwritable.getOriginalMessage(), unwritable);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    return text.toString();
  }

  /** Returns true if a text is one JSON value. */
  public static boolean isValid(String text) {
    // The masked text around an error is not needed.
    return problemIn(text, JsonProblem::of).isEmpty();
  }

  /**
   * Returns the syntax error in a text that should be one JSON value, with its place, and secrets
   * masked; empty if it is valid.
   */
  public static Optional<String> problemIn(String text) {
    return problemIn(text, malformed -> JsonProblem.of(malformed, text));
  }

  private static Optional<String> problemIn(
      String text, Function<JsonProcessingException, String> told) {
    try (JsonParser parser = STREAMS.createParser(text)) {
      if (parser.nextToken() == null) {
        return Optional.of("it is empty");
      }
      parser.skipChildren();
      return parser.nextToken() == null
          ? Optional.empty()
          : Optional.of(
              JsonProblem.where(parser.currentTokenLocation())
                  + "unexpected content after the end");
    } catch (JsonProcessingException malformed) {
      return Optional.of(told.apply(malformed));
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }

  /** Returns a parser's error, with its place. */
  public static String problem(JsonProcessingException failure) {
    return JsonProblem.of(failure);
  }

  /** Finding modules takes milliseconds, so it waits until a mapper is needed. */
  private static final class Default {
    static final ObjectMapper MAPPER = mapper();

    private static ObjectMapper mapper() {
      JsonMapper.Builder builder = JsonMapper.builder(STREAMS.copy());
      if (JavaTime.isNeeded(Json.class.getClassLoader())) {
        builder.addModule(new JavaTime());
      }
      return builder
          .findAndAddModules()
          .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
          .disable(SerializationFeature.WRITE_DURATIONS_AS_TIMESTAMPS)
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .build();
    }
  }
}
