package dev.cachette.http;

/** How the content of a message is read as text. */
final class Texts {

  private Texts() {}

  static String of(Headers headers, Body body) {
    return body.text(headers.charset());
  }
}
