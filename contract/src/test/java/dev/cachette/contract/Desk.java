// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;

/** The harbour desk, as far as it calls the berth service. */
final class Desk {

  static final String BERTHS = "https://berths.example";

  /** Without TLS, for tests of many sessions: each would make certificates of its own. */
  static final String PLAIN_BERTHS = "http://berths.example";

  private final HttpClient client = HttpClient.newHttpClient();
  private final String origin;

  Desk() {
    this(BERTHS);
  }

  Desk(String origin) {
    this.origin = origin;
  }

  HttpResponse<String> get(String path) {
    return send(HttpRequest.newBuilder(URI.create(origin + path)).GET().build());
  }

  HttpResponse<String> post(String path, String json, String... headers) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(origin + path))
            .header("content-type", "application/json")
            .POST(BodyPublishers.ofString(json));
    if (headers.length > 0) {
      request.headers(headers);
    }
    return send(request.build());
  }

  HttpResponse<String> send(HttpRequest request) {
    try {
      return client.send(request, BodyHandlers.ofString());
    } catch (IOException failed) {
      throw new java.io.UncheckedIOException(failed);
    } catch (InterruptedException stopped) {
      throw new IllegalStateException(stopped);
    }
  }
}
