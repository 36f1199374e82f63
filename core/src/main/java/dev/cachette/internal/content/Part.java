package dev.cachette.internal.content;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import java.util.Optional;

/**
 * One part of a multipart body (RFC 7578).
 *
 * @param headers its header fields
 * @param body its content
 */
public record Part(Headers headers, Body body) {

  /** The name of the field. */
  public Optional<String> name() {
    return disposition("name");
  }

  /** The name of the file, if the part is one. */
  public Optional<String> fileName() {
    return disposition("filename*").map(Parameters::extended).or(() -> disposition("filename"));
  }

  private Optional<String> disposition(String parameter) {
    return headers
        .first("content-disposition")
        .flatMap(value -> Parameters.of(value).named(parameter));
  }
}
