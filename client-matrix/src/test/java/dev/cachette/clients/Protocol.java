// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

/** The protocol between a client and a host. */
enum Protocol {
  /** HTTP/1.1 in clear text. */
  HTTP("http", "HTTP/1.1", "http"),
  /** HTTP/1.1 by TLS. */
  HTTPS("https", "HTTP/1.1", "https"),
  /** HTTP/2 by TLS, agreed on by ALPN. */
  HTTP_2("https", "HTTP/2", "HTTP/2 (ALPN)"),
  /** HTTP/2 in clear text, by prior knowledge. */
  HTTP_2_CLEAR("http", "HTTP/2", "HTTP/2 (prior knowledge)");

  final String scheme;
  final String version;
  final String title;

  Protocol(String scheme, String version, String title) {
    this.scheme = scheme;
    this.version = version;
    this.title = title;
  }

  boolean isHttp2() {
    return this == HTTP_2 || this == HTTP_2_CLEAR;
  }
}
