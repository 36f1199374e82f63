// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;

/** Posts to a service with the JDK's HTTP client, and accepts only the expected status. */
final class Http {

  static final Duration CONNECT_TIMEOUT = Duration.ofSeconds(5);
  static final Duration TIMEOUT = Duration.ofSeconds(5);

  private final HttpClient client = HttpClient.newBuilder().connectTimeout(CONNECT_TIMEOUT).build();

  String post(String url, String contentType, String body, int wanted, String... headers) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(url))
            .header("content-type", contentType)
            .POST(BodyPublishers.ofString(body));
    return send(headers.length == 0 ? request : request.headers(headers), wanted);
  }

  String get(String url, int wanted) {
    return send(HttpRequest.newBuilder(URI.create(url)), wanted);
  }

  private String send(HttpRequest.Builder request, int wanted) {
    try {
      HttpResponse<String> response =
          client.send(request.timeout(TIMEOUT).build(), BodyHandlers.ofString());
      if (response.statusCode() != wanted) {
        throw new HarbourException(response.uri().getHost() + " answered " + response.statusCode());
      }
      return response.body();
    } catch (IOException failed) {
      throw new HarbourException("the service cannot be reached", failed);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new HarbourException("interrupted", interrupted);
    }
  }
}
