package dev.cachette.internal.openapi;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;

/** A service that is described, at an origin. Any thread may use it. */
public final class Described {

  private final String origin;
  private volatile Description description;
  private volatile boolean answering;

  /**
   * A service whose examples answer nothing yet.
   *
   * @param origin scheme, host and, where it is not the scheme's own, port
   */
  public Described(String origin, Description description) {
    this.origin = origin;
    this.description = description;
  }

  /** Where it is. */
  public String origin() {
    return origin;
  }

  /** What it says of itself. */
  public Description description() {
    return description;
  }

  /** From now on, it says this of itself. */
  public void redescribe(Description other) {
    description = other;
  }

  /** From now on, its examples answer what no stub does. */
  public void answerFromExamples() {
    answering = true;
  }

  /** Whether it is at this host and port. */
  public boolean isAt(String host, int port) {
    Uri uri = Uri.parse(origin);
    return uri.host().equals(host) && uri.port() == port;
  }

  /** Whether it is the service that a request is for. */
  public boolean isFor(Request request) {
    return request.uri().origin().equals(origin);
  }

  /** Whether an example of it answers a request that no stub does. */
  public boolean answers(Request request) {
    return answering && description.operation(request).isPresent();
  }

  @Override
  public String toString() {
    return origin + ", described by " + description;
  }
}
