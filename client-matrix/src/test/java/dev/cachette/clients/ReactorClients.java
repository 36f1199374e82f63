// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import io.netty.buffer.Unpooled;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.http.client.reactive.ReactorClientHttpConnector;
import org.springframework.web.reactive.function.client.WebClient;
import reactor.core.Disposable;
import reactor.core.publisher.Mono;
import reactor.netty.http.HttpProtocol;
import reactor.netty.http.client.HttpClient;
import reactor.netty.resources.ConnectionProvider;
import reactor.netty.resources.LoopResources;

/** Reactor Netty, which looks names up by itself, over both transports, and what is built on it. */
final class ReactorClients {

  private static final int LARGE = 16 << 20;

  private ReactorClients() {}

  static HarbourClient nio(Protocol protocol) {
    return calling(protocol, false);
  }

  static HarbourClient nativeTransport(Protocol protocol) {
    return calling(protocol, true);
  }

  private static HarbourClient calling(Protocol protocol, boolean preferNative) {
    ConnectionProvider connections = ConnectionProvider.create("harbour", 50);
    LoopResources loops = LoopResources.create("harbour");
    HttpClient client = client(protocol, connections, loops, preferNative);
    HarbourClient calling =
        (method, url, body) ->
            client
                .headers(
                    headers -> {
                      if (body.isPresent()) {
                        headers.set("content-type", "application/json");
                      }
                    })
                .request(io.netty.handler.codec.http.HttpMethod.valueOf(method))
                .uri(url)
                .send(
                    body.map(json -> Mono.just(Unpooled.copiedBuffer(json, StandardCharsets.UTF_8)))
                        .orElseGet(Mono::empty))
                .responseSingle(
                    (response, content) ->
                        content
                            .asByteArray()
                            .defaultIfEmpty(new byte[0])
                            .map(bytes -> Reply.of(response.status().code(), bytes)))
                .toFuture()
                .get();
    return calling.closing(() -> dispose(connections, loops));
  }

  private static void dispose(Disposable... all) {
    for (Disposable each : all) {
      each.dispose();
    }
  }

  private static HttpClient client(
      Protocol protocol,
      ConnectionProvider connections,
      LoopResources loops,
      boolean preferNative) {
    HttpClient client =
        HttpClient.create(connections).runOn(loops, preferNative).protocol(spoken(protocol));
    return protocol.scheme.equals("https") ? client.secure() : client;
  }

  private static HttpProtocol spoken(Protocol protocol) {
    return switch (protocol) {
      case HTTP_2 -> HttpProtocol.H2;
      case HTTP_2_CLEAR -> HttpProtocol.H2C;
      default -> HttpProtocol.HTTP11;
    };
  }

  static HarbourClient webClient(Protocol protocol) {
    ConnectionProvider connections = ConnectionProvider.create("desk", 50);
    LoopResources loops = LoopResources.create("desk");
    HttpClient http = client(protocol, connections, loops, true);
    WebClient client =
        WebClient.builder()
            .clientConnector(new ReactorClientHttpConnector(http))
            .codecs(codecs -> codecs.defaultCodecs().maxInMemorySize(LARGE))
            .build();
    HarbourClient calling =
        (method, url, body) -> {
          WebClient.RequestBodySpec request =
              client.method(HttpMethod.valueOf(method)).uri(URI.create(url));
          body.ifPresent(json -> request.contentType(MediaType.APPLICATION_JSON).bodyValue(json));
          return request
              .exchangeToMono(
                  response ->
                      response
                          .bodyToMono(byte[].class)
                          .defaultIfEmpty(new byte[0])
                          .map(bytes -> Reply.of(response.statusCode().value(), bytes)))
              .toFuture()
              .get();
        };
    return calling.closing(() -> dispose(connections, loops));
  }
}
