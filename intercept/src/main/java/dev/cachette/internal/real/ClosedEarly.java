package dev.cachette.internal.real;

import java.io.IOException;

/** The service has closed the connection, and the answer was not there as a whole. */
final class ClosedEarly extends IOException {

  private static final long serialVersionUID = 1;

  ClosedEarly(String origin) {
    super(origin + " closed the connection without a whole answer");
  }
}
