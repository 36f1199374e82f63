// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** A client of the matrix, as the code under test would use it. */
@FunctionalInterface
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

  /** Returns this client, and what is to be closed with it. */
  default HarbourClient closing(AutoCloseable resource) {
    HarbourClient self = this;
    return new HarbourClient() {
      @Override
      public Reply call(String method, String url, Optional<String> body) throws Exception {
        return self.call(method, url, body);
      }

      @Override
      public void close() throws IOException {
        try {
          resource.close();
        } catch (IOException failed) {
          throw failed;
        } catch (Exception failed) {
          throw new IOException(failed);
        }
      }
    };
  }

  /** The response. */
  record Reply(int status, byte[] bytes) {

    static Reply of(int status, byte[] bytes) {
      return new Reply(status, bytes == null ? new byte[0] : bytes);
    }

    String body() {
      return new String(bytes, StandardCharsets.UTF_8);
    }
  }
}
