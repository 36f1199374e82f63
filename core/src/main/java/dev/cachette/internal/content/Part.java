// SPDX-License-Identifier: Apache-2.0
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

  /** Returns the name of the field. */
  public Optional<String> name() {
    return disposition("name");
  }

  /** Returns the file name, if the part is a file. */
  public Optional<String> fileName() {
    return disposition("filename*").map(Parameters::extended).or(() -> disposition("filename"));
  }

  private Optional<String> disposition(String parameter) {
    return headers
        .first("content-disposition")
        .flatMap(value -> Parameters.of(value).named(parameter));
  }
}
