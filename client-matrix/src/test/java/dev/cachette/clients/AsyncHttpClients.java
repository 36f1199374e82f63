// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import org.asynchttpclient.AsyncHttpClient;
import org.asynchttpclient.BoundRequestBuilder;
import org.asynchttpclient.DefaultAsyncHttpClientConfig;
import org.asynchttpclient.Dsl;
import org.asynchttpclient.Response;

/** AsyncHttpClient, which is built on Netty. */
final class AsyncHttpClients {

  private AsyncHttpClients() {}

  static HarbourClient nio(Protocol protocol) {
    return create(protocol, false);
  }

  static HarbourClient nativeTransport(Protocol protocol) {
    return create(protocol, true);
  }

  private static HarbourClient create(Protocol protocol, boolean nativeTransport) {
    DefaultAsyncHttpClientConfig.Builder config =
        Dsl.config()
            .setUseNativeTransport(nativeTransport)
            .setHttp2Enabled(protocol.isHttp2())
            .setHttp2CleartextEnabled(protocol == Protocol.HTTP_2_CLEAR)
            .setThreadPoolName("harbour");
    AsyncHttpClient client = Dsl.asyncHttpClient(config);
    HarbourClient calling =
        (method, url, body) -> {
          BoundRequestBuilder request = client.prepare(method, url);
          body.ifPresent(
              json -> request.setHeader("content-type", "application/json").setBody(json));
          Response got = request.execute().get();
          return Reply.of(got.getStatusCode(), got.getResponseBodyAsBytes());
        };
    return calling.closing(client);
  }
}
