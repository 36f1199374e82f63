package dev.cachette.internal.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.PrettyPrinter;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The mapper that is used where the user gives none, and where in a text a parser stopped. */
public final class Json {

  /** What Jackson says of where something stands, that can be said shorter. */
  private static final Pattern SOURCE = Pattern.compile("\\[Source: [^;]*; ([^]]*)]");

  private static final JsonFactory STREAMS = new JsonFactory();

  private Json() {}

  /** The default mapper, with every Jackson module that stands on the class path. */
  public static ObjectMapper mapper() {
    return Default.MAPPER;
  }

  /**
   * A JSON text that the user gives.
   *
   * @param what names the argument in the message
   * @throws IllegalArgumentException if it is no JSON; the message gives line and column
   */
  public static JsonNode read(String what, String text) {
    problemIn(text)
        .ifPresent(
            problem -> {
              throw new IllegalArgumentException(
                  what + " was given a text that is no JSON, " + problem + "\nMend: correct it.");
            });
    return tree(text);
  }

  /**
   * An object as JSON.
   *
   * @param what names the argument in the message
   * @throws IllegalArgumentException if the mapper cannot write it; the cause is Jackson's own
   *     error
   */
  public static String write(String what, Object value, ObjectMapper mapper) {
    try {
      return mapper.writeValueAsString(value);
    } catch (JsonProcessingException unwritable) {
      throw new IllegalArgumentException(
          String.format(
              "%s cannot be written: Jackson refused an object of %s, %s\n"
                  + "Mend: give it accessors or annotations, or a mapper that knows it.",
              what, value.getClass(), unwritable.getOriginalMessage()),
          unwritable);
    }
  }

  /** A text that is known to be JSON, as a tree; numbers keep all their digits. */
  public static JsonNode tree(String text) {
    try (JsonParser parser = STREAMS.createParser(text)) {
      return parser.nextToken() == null ? MissingNode.getInstance() : tree(parser);
    } catch (JsonProcessingException malformed) {
      throw new IllegalArgumentException(problem(malformed), malformed);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }

  /**
   * The value that begins at the current token; numbers keep all their digits.
   *
   * @throws IOException as the parser does
   */
  public static JsonNode tree(JsonParser parser) throws IOException {
    return JsonTrees.read(parser);
  }

  /** A tree as JSON, with no white space. */
  public static String text(JsonNode tree) {
    return text(tree, null);
  }

  /**
   * A tree as JSON, laid out; by null, with no white space.
   *
   * @throws IllegalArgumentException if it is deeper than Jackson writes
   */
  public static String text(JsonNode tree, @Nullable PrettyPrinter layout) {
    StringWriter text = new StringWriter();
    try (JsonGenerator generator = STREAMS.createGenerator(text)) {
      generator.setPrettyPrinter(layout);
      JsonTrees.write(tree, generator);
    } catch (JsonProcessingException unwritable) {
      throw new IllegalArgumentException(
          "it cannot be written as JSON: " + unwritable.getOriginalMessage(), unwritable);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    return text.toString();
  }

  /** What is wrong with a text that should be one JSON value, with its place; empty if nothing. */
  public static Optional<String> problemIn(String text) {
    try (JsonParser parser = STREAMS.createParser(text)) {
      if (parser.nextToken() == null) {
        return Optional.of("it is empty");
      }
      parser.skipChildren();
      return parser.nextToken() == null
          ? Optional.empty()
          : Optional.of(where(parser.currentTokenLocation()) + "there is more behind its end");
    } catch (JsonProcessingException malformed) {
      return Optional.of(problem(malformed));
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }

  /** What a parser found wrong, with its place. */
  public static String problem(JsonProcessingException failure) {
    String message = failure.getOriginalMessage();
    return where(failure.getLocation()) + SOURCE.matcher(message).replaceAll("$1");
  }

  private static String where(@Nullable JsonLocation place) {
    return place == null
        ? ""
        : String.format("line %d, column %d: ", place.getLineNr(), place.getColumnNr());
  }

  /** Looking for modules costs some milliseconds, so it waits until somebody needs a mapper. */
  private static final class Default {
    static final ObjectMapper MAPPER =
        JsonMapper.builder()
            .findAndAddModules()
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();
  }
}
