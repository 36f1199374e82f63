// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import com.linecorp.armeria.client.ClientFactory;
import com.linecorp.armeria.client.WebClient;
import com.linecorp.armeria.common.AggregatedHttpResponse;
import com.linecorp.armeria.common.HttpMethod;
import com.linecorp.armeria.common.HttpRequest;
import com.linecorp.armeria.common.MediaType;
import dev.cachette.clients.HarbourClient.Reply;
import java.net.URI;
import java.nio.charset.StandardCharsets;

/** Armeria, which asks Netty's resolver for the records of a host instead of its addresses. */
final class ArmeriaClients {

  private ArmeriaClients() {}

  static HarbourClient create(Protocol protocol) {
    ClientFactory factory = ClientFactory.builder().build();
    WebClient client = WebClient.builder().factory(factory).build();
    HarbourClient calling =
        (method, url, body) -> {
          String target = session(protocol) + url.substring(URI.create(url).getScheme().length());
          HttpMethod named = HttpMethod.valueOf(method);
          HttpRequest request =
              body.map(
                      json ->
                          HttpRequest.of(
                              named, target, MediaType.JSON, json.getBytes(StandardCharsets.UTF_8)))
                  .orElseGet(() -> HttpRequest.of(named, target));
          AggregatedHttpResponse got = client.execute(request).aggregate().get();
          return Reply.of(got.status().code(), got.content().array());
        };
    return calling.closing(factory);
  }

  private static String session(Protocol protocol) {
    return switch (protocol) {
      case HTTP -> "h1c";
      case HTTPS -> "h1";
      case HTTP_2 -> "h2";
      case HTTP_2_CLEAR -> "h2c";
    };
  }
}
