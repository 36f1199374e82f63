// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;

/** A service with an API description, at an origin. Thread-safe. */
public final class Described {

  private final String origin;
  private volatile Description description;
  private volatile boolean answering;

  /**
   * Creates a service whose examples are not used as answers yet.
   *
   * @param origin scheme, host and, if it is not the default, port
   */
  public Described(String origin, Description description) {
    this.origin = origin;
    this.description = description;
  }

  /** Returns its origin. */
  public String origin() {
    return origin;
  }

  /** Returns its API description. */
  public Description description() {
    return description;
  }

  /** Replaces its API description. */
  public void redescribe(Description other) {
    description = other;
  }

  /** Uses its examples as answers to calls without a stub. */
  public void answerFromExamples() {
    answering = true;
  }

  /** Returns true if it is at this host and port. */
  public boolean isAt(String host, int port) {
    Uri uri = Uri.parse(origin);
    return uri.host().equals(host) && uri.port() == port;
  }

  /** Returns true if a request is for this service. */
  public boolean isFor(Request request) {
    return request.uri().origin().equals(origin);
  }

  /** Returns true if its examples answer a request without a stub. */
  public boolean answers(Request request) {
    return answering && description.operation(request).isPresent();
  }

  @Override
  public String toString() {
    return origin + ", described by " + description;
  }
}
