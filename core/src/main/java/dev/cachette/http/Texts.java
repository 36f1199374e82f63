// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

/** Decodes the content of a message as text. */
final class Texts {

  private Texts() {}

  static String of(Headers headers, Body body) {
    return body.text(headers.charset());
  }
}
