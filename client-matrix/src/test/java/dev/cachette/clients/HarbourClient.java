package dev.cachette.clients;

import java.io.IOException;
import java.util.Optional;

/** A client of the matrix, as the code under test would use it. */
interface HarbourClient extends AutoCloseable {

  /** One call, waited for. The body is sent as JSON where there is one. */
  Reply call(String method, String url, Optional<String> body) throws Exception;

  default Reply get(String url) throws Exception {
    return call("GET", url, Optional.empty());
  }

  default Reply post(String url, String body) throws Exception {
    return call("POST", url, Optional.of(body));
  }

  @Override
  default void close() throws IOException {}

  /** What came back. */
  record Reply(int status, String body) {}
}
