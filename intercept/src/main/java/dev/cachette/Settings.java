package dev.cachette;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.internal.json.Json;
import java.util.Optional;

/**
 * How a {@link Cachette} behaves. Immutable: every method with an argument returns new settings,
 * and {@link #defaults()} is where to begin.
 */
public final class Settings {

  private static final int MEBIBYTE = 1024 * 1024;

  private static final Settings DEFAULTS =
      new Settings(UnexpectedCalls.FAIL, 64 * MEBIBYTE, Optional.empty(), Optional.empty());

  private final UnexpectedCalls unexpectedCalls;
  private final int maxRequestBody;
  private final Optional<ObjectMapper> mapper;
  private final Optional<String> name;

  private Settings(
      UnexpectedCalls unexpectedCalls,
      int maxRequestBody,
      Optional<ObjectMapper> mapper,
      Optional<String> name) {
    this.unexpectedCalls = unexpectedCalls;
    this.maxRequestBody = maxRequestBody;
    this.mapper = mapper;
    this.name = name;
  }

  /** Unexpected calls fail, request bodies up to 64 MiB, Jackson with all modules it finds. */
  public static Settings defaults() {
    return DEFAULTS;
  }

  /** What a call does that no stub answers; {@link UnexpectedCalls#FAIL} by default. */
  public Settings unexpectedCalls(UnexpectedCalls choice) {
    requireNonNull("unexpectedCalls", choice);
    return new Settings(choice, maxRequestBody, mapper, name);
  }

  /**
   * The largest request body, in bytes, that is held in memory; 64 MiB by default. A larger one is
   * answered with 400 and an explanation, and noted as an unexpected call.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxRequestBody(int bytes) {
    if (bytes <= 0) {
      throw new IllegalArgumentException(
          "maxRequestBody is a positive number of bytes, not " + bytes + ".");
    }
    return new Settings(unexpectedCalls, bytes, mapper, name);
  }

  /**
   * The mapper that {@link dev.cachette.calls.Call#as} and {@link dev.cachette.calls.Call#json}
   * read with; by default one with every Jackson module on the class path.
   */
  public Settings mapper(ObjectMapper objectMapper) {
    requireNonNull("mapper", objectMapper);
    return new Settings(unexpectedCalls, maxRequestBody, Optional.of(objectMapper), name);
  }

  /**
   * Whose Cachette it is, for messages such as the one on a second {@code open()}; by default the
   * line that opened it.
   */
  public Settings named(String owner) {
    requireNonNull("named", owner);
    return new Settings(unexpectedCalls, maxRequestBody, mapper, Optional.of(owner));
  }

  Optional<String> name() {
    return name;
  }

  UnexpectedCalls unexpectedCalls() {
    return unexpectedCalls;
  }

  int maxRequestBody() {
    return maxRequestBody;
  }

  ObjectMapper mapper() {
    return mapper.orElseGet(Json::mapper);
  }

  private static void requireNonNull(String setting, Object value) {
    if (value == null) {
      throw new IllegalArgumentException("The setting " + setting + " must not be null.");
    }
  }
}
