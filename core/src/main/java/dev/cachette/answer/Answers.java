package dev.cachette.answer;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.json.Json;

/**
 * Makes answers, to be imported statically: {@code net.stub("GET
 * https://tides.example/v1/tides").answer(json("{\"high\": \"04:10\"}"))}.
 *
 * <p>Each has status 200 until {@link ResponseAnswer#status(int)} says otherwise.
 */
public final class Answers {

  private Answers() {}

  /**
   * A JSON text, sent as it is written, as {@code application/json}.
   *
   * @throws IllegalArgumentException if the text is no JSON (RFC 8259); the message gives line and
   *     column
   */
  public static ResponseAnswer json(String text) {
    requireNonNull("json(text)", text);
    Json.problemIn(text)
        .ifPresent(
            problem -> {
              throw new IllegalArgumentException(
                  String.format(
                      "json(text) was given a text that is no JSON, %s\nMend: correct it; "
                          + "text(...) sends any text, with .header(\"content-type\", ...).",
                      problem));
            });
    return ResponseAnswer.of("application/json", Body.of(text));
  }

  /**
   * An object written as JSON by Jackson, with every Jackson module on the class path.
   *
   * @param value a record, bean, collection, map, {@code JsonNode} or simple value
   * @throws IllegalArgumentException if Jackson cannot write it; the cause is Jackson's own error
   */
  public static ResponseAnswer json(Object value) {
    requireNonNull("json(value)", value);
    return value instanceof CharSequence text ? json(text.toString()) : json(value, Json.mapper());
  }

  /**
   * An object written as JSON by a mapper of one's own.
   *
   * @throws IllegalArgumentException if the mapper cannot write it; the cause is Jackson's own
   *     error
   */
  public static ResponseAnswer json(Object value, ObjectMapper mapper) {
    requireNonNull("json(value, mapper)", value);
    requireNonNull("The mapper of json(value, mapper)", mapper);
    try {
      return ResponseAnswer.of("application/json", Body.of(mapper.writeValueAsBytes(value)));
    } catch (JsonProcessingException unwritable) {
      throw new IllegalArgumentException(
          String.format(
              "json(value) cannot be written: Jackson refused an object of %s, %s\n"
                  + "Mend: give it accessors or annotations, or use json(value, mapper) with the "
                  + "mapper that knows it.",
              value.getClass(), unwritable.getOriginalMessage()),
          unwritable);
    }
  }

  /** A text, as {@code text/plain} in UTF-8. */
  public static ResponseAnswer text(String text) {
    requireNonNull("text(text)", text);
    return ResponseAnswer.of("text/plain; charset=utf-8", Body.of(text));
  }

  /** Bytes, as {@code application/octet-stream}. */
  public static ResponseAnswer bytes(byte[] bytes) {
    requireNonNull("bytes(bytes)", bytes);
    return ResponseAnswer.of("application/octet-stream", Body.of(bytes));
  }

  /**
   * A status with no body and no header.
   *
   * @param code 200 to 599
   * @throws IllegalArgumentException if the code is another
   */
  public static ResponseAnswer status(int code) {
    return new ResponseAnswer(new Response(200, Headers.none(), Body.empty())).status(code);
  }

  private static void requireNonNull(String what, Object value) {
    if (value == null) {
      throw new IllegalArgumentException(what + " must not be null.");
    }
  }
}
