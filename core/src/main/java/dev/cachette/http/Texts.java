package dev.cachette.http;

import java.nio.charset.StandardCharsets;

/** How the content of a message is read as text. */
final class Texts {

  private Texts() {}

  static String of(Headers headers, Body body) {
    return body.text(
        headers.contentType().map(MediaType::charsetOrDefault).orElse(StandardCharsets.UTF_8));
  }
}
