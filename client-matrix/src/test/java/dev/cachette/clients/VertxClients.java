// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import io.vertx.core.Future;
import io.vertx.core.Vertx;
import io.vertx.core.VertxOptions;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpVersion;
import io.vertx.ext.web.client.HttpRequest;
import io.vertx.ext.web.client.HttpResponse;
import io.vertx.ext.web.client.WebClient;
import io.vertx.ext.web.client.WebClientOptions;

/** Vert.x, which looks names up by itself, over both transports. */
final class VertxClients {

  private VertxClients() {}

  static HarbourClient nio(Protocol protocol) {
    return calling(protocol, false);
  }

  static HarbourClient nativeTransport(Protocol protocol) {
    return calling(protocol, true);
  }

  private static HarbourClient calling(Protocol protocol, boolean preferNative) {
    Vertx vertx = Vertx.vertx(new VertxOptions().setPreferNativeTransport(preferNative));
    WebClientOptions options =
        new WebClientOptions()
            .setProtocolVersion(protocol.isHttp2() ? HttpVersion.HTTP_2 : HttpVersion.HTTP_1_1)
            .setUseAlpn(protocol == Protocol.HTTP_2)
            .setHttp2ClearTextUpgrade(false);
    WebClient client = WebClient.create(vertx, options);
    HarbourClient calling =
        (method, url, body) -> {
          HttpRequest<Buffer> request = client.requestAbs(HttpMethod.valueOf(method), url);
          Future<HttpResponse<Buffer>> response =
              body.isPresent()
                  ? request
                      .putHeader("content-type", "application/json")
                      .sendBuffer(Buffer.buffer(body.get()))
                  : request.send();
          HttpResponse<Buffer> got = response.toCompletionStage().toCompletableFuture().get();
          Buffer content = got.bodyAsBuffer();
          return Reply.of(got.statusCode(), content == null ? null : content.getBytes());
        };
    return calling.closing(
        () -> {
          client.close();
          vertx.close().toCompletionStage().toCompletableFuture().get();
        });
  }
}
