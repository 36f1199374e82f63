// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;

/**
 * A header on calls to real services, by which a session recognises a call that has come back to
 * it: by a name of its own machine, or through another proxy. The header {@code Via} of RFC 9110 is
 * for that, too, but makes some servers answer without compression.
 *
 * @param id the identity of the session
 */
public record PassMark(String id) {

  private static final String HEADER = "cachette-passed-by";

  /** Creates the mark of a new session. */
  public static PassMark create() {
    return new PassMark(UUID.randomUUID().toString());
  }

  /** Returns true if this session has passed the request on before. */
  public boolean isOn(Request request) {
    return request.headers().all(HEADER).contains(id);
  }

  /** Returns the request with this mark, besides those of other sessions. */
  Request on(Request request) {
    List<Header> headers = new ArrayList<>(request.headers().stream().toList());
    headers.add(new Header(HEADER, id));
    return with(request, Headers.of(headers));
  }

  /** Returns the request as its caller made it, without marks. */
  static Request without(Request request) {
    return request.headers().has(HEADER) ? with(request, request.headers().with(HEADER)) : request;
  }

  private static Request with(Request request, Headers headers) {
    return new Request(request.method(), request.uri(), headers, request.body());
  }
}
