// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;

/** The code under test of the guide: any call. */
final class Http {

  private Http() {}

  static HttpResponse<String> call(String method, String url) {
    return call(method, url, "");
  }

  /** Returns a call with headers as {@code name: value}. */
  static HttpResponse<String> call(String method, String url, String body, String... headers) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(url)).method(method, BodyPublishers.ofString(body));
    for (String header : headers) {
      String[] parts = header.split(": ", 2);
      request.header(parts[0], parts[1]);
    }
    try {
      return HttpClient.newHttpClient().send(request.build(), BodyHandlers.ofString());
    } catch (IOException | InterruptedException failed) {
      throw new IllegalStateException(failed);
    }
  }
}
