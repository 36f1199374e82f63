package dev.cachette.internal.json;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;

/** The mapper that is used where the user gives none, and where in a text a parser stopped. */
public final class Json {

  private Json() {}

  /** The default mapper, with every Jackson module that stands on the class path. */
  public static ObjectMapper mapper() {
    return Default.MAPPER;
  }

  /** What is wrong with a text that should be JSON, with its place. */
  public static String problem(JsonProcessingException failure) {
    JsonLocation place = failure.getLocation();
    String where =
        place == null
            ? ""
            : String.format("line %d, column %d: ", place.getLineNr(), place.getColumnNr());
    return where + failure.getOriginalMessage();
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
