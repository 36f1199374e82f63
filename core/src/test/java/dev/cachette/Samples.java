// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.net.URI;
import java.util.Arrays;
import java.util.Optional;

/** Requests for tests. */
public final class Samples {

  private Samples() {}

  /** Returns a request with no header and no body: {@code GET https://tides.example/v1}. */
  public static Request request(String line) {
    return request(line, "");
  }

  /** Returns a request with a body, and headers written as {@code name: value}. */
  public static Request request(String line, String body, String... headers) {
    String[] parts = line.split(" ", 2);
    URI uri = URI.create(parts[1]);
    int port = uri.getPort() < 0 ? Uri.defaultPort(uri.getScheme()) : uri.getPort();
    String host = uri.getHost().replaceAll("[\\[\\]]", "");
    return new Request(
        parts[0],
        new Uri(
            uri.getScheme(), host, port, uri.getRawPath(), Optional.ofNullable(uri.getRawQuery())),
        Headers.of(Arrays.stream(headers).map(Samples::header).toList()),
        Body.of(body));
  }

  private static Header header(String line) {
    String[] parts = line.split(":", 2);
    return new Header(parts[0], parts[1]);
  }
}
