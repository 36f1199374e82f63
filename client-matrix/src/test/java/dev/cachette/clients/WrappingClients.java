// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import com.google.api.client.http.ByteArrayContent;
import com.google.api.client.http.GenericUrl;
import com.google.api.client.http.HttpContent;
import com.google.api.client.http.HttpRequest;
import com.google.api.client.http.HttpResponse;
import com.google.api.client.http.javanet.NetHttpTransport;
import dev.cachette.clients.HarbourClient.Reply;
import feign.Client;
import feign.Request;
import jakarta.ws.rs.client.ClientBuilder;
import jakarta.ws.rs.client.Entity;
import jakarta.ws.rs.client.Invocation;
import jakarta.ws.rs.core.Response;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import kong.unirest.core.HttpRequestWithBody;
import kong.unirest.core.Unirest;
import kong.unirest.core.UnirestInstance;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.web.client.RestClient;

/** Clients that are built on the JDK's. */
final class WrappingClients {

  private WrappingClients() {}

  static HarbourClient restClient(Protocol protocol) {
    RestClient client =
        RestClient.builder()
            .requestFactory(new JdkClientHttpRequestFactory(JdkClients.client(protocol)))
            .build();
    return (method, url, body) -> {
      RestClient.RequestBodySpec request =
          client.method(HttpMethod.valueOf(method)).uri(URI.create(url));
      body.ifPresent(json -> request.contentType(MediaType.APPLICATION_JSON).body(json));
      return request.exchange(
          (sent, got) -> Reply.of(got.getStatusCode().value(), got.getBody().readAllBytes()));
    };
  }

  /** With the client that Feign takes where none is set. */
  @SuppressWarnings("deprecation")
  static HarbourClient feign(Protocol protocol) {
    Client client = new Client.Default(null, null);
    return (method, url, body) -> {
      Map<String, Collection<String>> headers =
          body.isPresent() ? Map.of("content-type", List.of("application/json")) : Map.of();
      byte[] content = body.map(json -> json.getBytes(StandardCharsets.UTF_8)).orElse(null);
      Request request =
          Request.create(
              Request.HttpMethod.valueOf(method),
              url,
              headers,
              content,
              StandardCharsets.UTF_8,
              null);
      feign.Response got = client.execute(request, new Request.Options());
      try (InputStream in = got.body() == null ? null : got.body().asInputStream()) {
        return Reply.of(got.status(), in == null ? null : in.readAllBytes());
      }
    };
  }

  static HarbourClient google(Protocol protocol) {
    NetHttpTransport transport = new NetHttpTransport();
    HarbourClient calling =
        (method, url, body) -> {
          HttpContent content =
              body.map(json -> ByteArrayContent.fromString("application/json", json)).orElse(null);
          HttpRequest request =
              transport
                  .createRequestFactory()
                  .buildRequest(method, new GenericUrl(url), content)
                  .setThrowExceptionOnExecuteError(false);
          HttpResponse got = request.execute();
          try (InputStream in = got.getContent()) {
            return Reply.of(got.getStatusCode(), in == null ? null : in.readAllBytes());
          }
        };
    return calling.closing(transport::shutdown);
  }

  static HarbourClient unirest(Protocol protocol) {
    UnirestInstance client = Unirest.spawnInstance();
    client
        .config()
        .version(
            protocol.isHttp2()
                ? java.net.http.HttpClient.Version.HTTP_2
                : java.net.http.HttpClient.Version.HTTP_1_1);
    HarbourClient calling =
        (method, url, body) -> {
          HttpRequestWithBody request = client.request(method, url);
          var got =
              body.isPresent()
                  ? request.contentType("application/json").body(body.get()).asBytes()
                  : request.asBytes();
          return Reply.of(got.getStatus(), got.getBody());
        };
    return calling.closing(client);
  }

  static HarbourClient jersey(Protocol protocol) {
    jakarta.ws.rs.client.Client client = ClientBuilder.newClient();
    HarbourClient calling =
        (method, url, body) -> {
          Invocation.Builder request = client.target(url).request();
          try (Response got =
              body.isPresent()
                  ? request.method(method, Entity.json(body.get()))
                  : request.method(method)) {
            return Reply.of(got.getStatus(), got.hasEntity() ? got.readEntity(byte[].class) : null);
          }
        };
    return calling.closing(client);
  }
}
