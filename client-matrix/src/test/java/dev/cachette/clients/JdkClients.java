// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** The clients that Java brings. */
final class JdkClients {

  private JdkClients() {}

  static HttpClient client(Protocol protocol) {
    return HttpClient.newBuilder()
        .version(protocol.isHttp2() ? HttpClient.Version.HTTP_2 : HttpClient.Version.HTTP_1_1)
        .build();
  }

  static HarbourClient blocking(Protocol protocol) {
    HttpClient client = client(protocol);
    return (method, url, body) -> {
      HttpResponse<byte[]> response =
          client.send(request(method, url, body), BodyHandlers.ofByteArray());
      return Reply.of(response.statusCode(), response.body());
    };
  }

  static HarbourClient async(Protocol protocol) {
    HttpClient client = client(protocol);
    return (method, url, body) ->
        client
            .sendAsync(request(method, url, body), BodyHandlers.ofByteArray())
            .thenApply(got -> Reply.of(got.statusCode(), got.body()))
            .get();
  }

  static HarbourClient urlConnection(Protocol protocol) {
    return (method, url, body) -> {
      HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
      connection.setRequestMethod(method);
      if (body.isPresent()) {
        connection.setDoOutput(true);
        connection.setRequestProperty("content-type", "application/json");
        connection.getOutputStream().write(body.get().getBytes(StandardCharsets.UTF_8));
      }
      int status = connection.getResponseCode();
      try (InputStream in =
          status < 400 ? connection.getInputStream() : connection.getErrorStream()) {
        // There is no stream at all for an error without a body.
        return Reply.of(status, in == null ? new byte[0] : in.readAllBytes());
      }
    };
  }

  private static HttpRequest request(String method, String url, Optional<String> body) {
    BodyPublisher publisher = body.map(BodyPublishers::ofString).orElseGet(BodyPublishers::noBody);
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url)).method(method, publisher);
    body.ifPresent(json -> request.header("content-type", "application/json"));
    return request.build();
  }
}
