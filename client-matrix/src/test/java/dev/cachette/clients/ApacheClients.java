// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.apache.hc.client5.http.async.methods.SimpleHttpRequest;
import org.apache.hc.client5.http.async.methods.SimpleHttpResponse;
import org.apache.hc.client5.http.async.methods.SimpleRequestBuilder;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.TlsConfig;
import org.apache.hc.client5.http.impl.async.CloseableHttpAsyncClient;
import org.apache.hc.client5.http.impl.async.HttpAsyncClients;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.nio.PoolingAsyncClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.EntityUtils;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.http2.HttpVersionPolicy;
import org.apache.hc.core5.io.CloseMode;
import org.apache.http.HttpResponse;
import org.apache.http.client.methods.HttpUriRequest;
import org.apache.http.client.methods.RequestBuilder;

/** Apache's clients, of both generations. */
final class ApacheClients {

  private ApacheClients() {}

  static HarbourClient classic5(Protocol protocol) {
    CloseableHttpClient client = HttpClients.createDefault();
    HarbourClient calling =
        (method, url, body) -> {
          HttpUriRequestBase request = new HttpUriRequestBase(method, URI.create(url));
          body.ifPresent(
              json -> request.setEntity(new StringEntity(json, ContentType.APPLICATION_JSON)));
          return client.execute(
              request,
              got ->
                  Reply.of(
                      got.getCode(),
                      got.getEntity() == null ? null : EntityUtils.toByteArray(got.getEntity())));
        };
    return calling.closing(() -> client.close(CloseMode.IMMEDIATE));
  }

  static HarbourClient async5(Protocol protocol) {
    CloseableHttpAsyncClient client =
        switch (protocol) {
          case HTTP_2_CLEAR -> HttpAsyncClients.createHttp2Default();
          case HTTP_2 -> HttpAsyncClients.createDefault();
          default -> http1();
        };
    client.start();
    HarbourClient calling =
        (method, url, body) -> {
          SimpleHttpRequest request = SimpleRequestBuilder.create(method).setUri(url).build();
          body.ifPresent(json -> request.setBody(json, ContentType.APPLICATION_JSON));
          SimpleHttpResponse got = client.execute(request, null).get();
          return Reply.of(got.getCode(), got.getBodyBytes());
        };
    return calling.closing(() -> client.close(CloseMode.IMMEDIATE));
  }

  private static CloseableHttpAsyncClient http1() {
    TlsConfig tls = TlsConfig.custom().setVersionPolicy(HttpVersionPolicy.FORCE_HTTP_1).build();
    return HttpAsyncClients.custom()
        .setConnectionManager(
            PoolingAsyncClientConnectionManagerBuilder.create().setDefaultTlsConfig(tls).build())
        .build();
  }

  static HarbourClient classic4(Protocol protocol) {
    var client = org.apache.http.impl.client.HttpClients.createDefault();
    HarbourClient calling =
        (method, url, body) -> reply(client.execute(request4(method, url, body)));
    return calling.closing(client);
  }

  static HarbourClient async4(Protocol protocol) {
    var client = org.apache.http.impl.nio.client.HttpAsyncClients.createDefault();
    client.start();
    HarbourClient calling =
        (method, url, body) -> reply(client.execute(request4(method, url, body), null).get());
    return calling.closing(client);
  }

  private static Reply reply(HttpResponse response) throws Exception {
    byte[] body =
        response.getEntity() == null
            ? null
            : org.apache.http.util.EntityUtils.toByteArray(response.getEntity());
    return Reply.of(response.getStatusLine().getStatusCode(), body);
  }

  /** Only a request that can have no body is repeated by this client. */
  private static HttpUriRequest request4(String method, String url, Optional<String> body) {
    RequestBuilder request = RequestBuilder.create(method).setUri(url);
    body.ifPresent(
        json ->
            request.setEntity(
                new org.apache.http.entity.StringEntity(
                    json,
                    org.apache.http.entity.ContentType.create(
                        "application/json", StandardCharsets.UTF_8))));
    return request.build();
  }
}
