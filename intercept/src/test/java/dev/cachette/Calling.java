// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;

/** The code under test, as small as can be. */
final class Calling {

  private Calling() {}

  static HttpResponse<String> get(String url) throws IOException, InterruptedException {
    return send(HttpClient.newHttpClient(), HttpRequest.newBuilder(URI.create(url)).build());
  }

  static HttpResponse<String> post(String url, String body)
      throws IOException, InterruptedException {
    return send(
        HttpClient.newHttpClient(),
        HttpRequest.newBuilder(URI.create(url)).POST(BodyPublishers.ofString(body)).build());
  }

  static HttpResponse<String> send(HttpClient client, HttpRequest request)
      throws IOException, InterruptedException {
    return client.send(request, BodyHandlers.ofString());
  }

  /** Returns what comes back for these bytes until the other side closes. */
  static String raw(String host, int port, String bytes) throws IOException {
    try (Socket socket = new Socket(host, port)) {
      socket.setSoTimeout(20_000);
      socket.getOutputStream().write(bytes.getBytes(StandardCharsets.ISO_8859_1));
      return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
    }
  }

  /** By HttpURLConnection. */
  static String plain(String url) throws IOException {
    HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
    connection.setReadTimeout(20_000);
    try (InputStream in = connection.getInputStream()) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }
}
