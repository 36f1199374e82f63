// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.result.StubReference;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Consumer;
import org.opentest4j.AssertionFailedError;

/**
 * A service that another module stands in for, such as an identity provider. Stubs for its
 * resources answer first. Implementations are thread-safe.
 */
public interface ServedService {

  /** Returns true if a host and port are its own. */
  boolean isAt(String host, int port);

  /** Returns the resource of a request, for the log; empty if it has none. */
  Optional<StubReference> resource(Request request);

  /** Returns the response to a request for one of its resources. */
  Response respond(ServedCall call);

  /**
   * Returns true for a resource of which a recorded response is wrong while this service answers:
   * its keys, and its metadata.
   */
  boolean replacesRecorded(Request request);

  /**
   * Returns a token that it has signed; empty if it is not the issuer.
   *
   * @param claims the claims, as JSON, without times
   * @param nonce the nonce of the login; empty for none
   */
  Optional<String> sign(String claims, Optional<String> nonce, Instant now);

  /** Returns what it has, for the explanation of a call to another resource. */
  String description();

  /** Begins with another test: forgets what it has learnt from calls. */
  void startAgain();

  /**
   * A call to a service.
   *
   * @param request the request
   * @param certificate the certificate that the client has sent
   * @param now the time of the session
   * @param failing receives what the code under test does wrong, which fails its test
   */
  record ServedCall(
      Request request,
      Optional<X509Certificate> certificate,
      Instant now,
      Consumer<AssertionFailedError> failing) {}
}
