// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;

import dev.cachette.match.Condition;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;

/** Tells whether a request of a real client matches a condition. */
final class Probe implements AutoCloseable {

  private final Cachette net =
      Cachette.open(
          Settings.defaults()
              .unexpectedCalls(UnexpectedCalls.WARN)
              .unusedStubs(UnusedStubs.IGNORE));

  private final HttpClient client = HttpClient.newHttpClient();

  Cachette net() {
    return net;
  }

  boolean fits(Condition condition, HttpRequest.Builder request) throws Exception {
    try (Cachette.Scope scope = net.scope()) {
      net.stub("* /{+rest}").where(condition).answer(status(204));
      return send(request) == 204;
    }
  }

  int send(HttpRequest.Builder request) throws Exception {
    return Calling.send(client, request.build()).statusCode();
  }

  @Override
  public void close() {
    net.close();
  }
}
