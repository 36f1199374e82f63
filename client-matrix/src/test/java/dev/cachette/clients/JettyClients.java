// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.util.concurrent.CompletableFuture;
import org.eclipse.jetty.client.BufferingResponseListener;
import org.eclipse.jetty.client.HttpClient;
import org.eclipse.jetty.client.HttpClientTransport;
import org.eclipse.jetty.client.Request;
import org.eclipse.jetty.client.Result;
import org.eclipse.jetty.client.StringRequestContent;
import org.eclipse.jetty.client.transport.HttpClientConnectionFactory;
import org.eclipse.jetty.client.transport.HttpClientTransportDynamic;
import org.eclipse.jetty.http2.client.HTTP2Client;
import org.eclipse.jetty.http2.client.transport.ClientConnectionFactoryOverHTTP2;
import org.eclipse.jetty.http2.client.transport.HttpClientTransportOverHTTP2;
import org.eclipse.jetty.io.ClientConnector;

/** Jetty's client. */
final class JettyClients {

  private static final int LARGE = 16 << 20;

  private JettyClients() {}

  static HarbourClient create(Protocol protocol) throws Exception {
    HttpClient client = new HttpClient(transport(protocol));
    client.start();
    HarbourClient calling =
        (method, url, body) -> {
          Request request = client.newRequest(url).method(method);
          body.ifPresent(json -> request.body(new StringRequestContent("application/json", json)));
          CompletableFuture<Reply> reply = new CompletableFuture<>();
          request.send(
              new BufferingResponseListener(LARGE) {
                @Override
                public void onComplete(Result result) {
                  if (result.isFailed()) {
                    reply.completeExceptionally(result.getFailure());
                  } else {
                    reply.complete(Reply.of(result.getResponse().getStatus(), getContent()));
                  }
                }
              });
          return reply.get();
        };
    return calling.closing(client::stop);
  }

  private static HttpClientTransport transport(Protocol protocol) {
    ClientConnector connector = new ClientConnector();
    return switch (protocol) {
      case HTTP_2_CLEAR -> new HttpClientTransportOverHTTP2(new HTTP2Client(connector));
      case HTTP_2 ->
          new HttpClientTransportDynamic(
              connector, new ClientConnectionFactoryOverHTTP2.HTTP2(new HTTP2Client(connector)));
      default -> new HttpClientTransportDynamic(connector, HttpClientConnectionFactory.HTTP11);
    };
  }
}
