// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import java.io.IOException;

/** Thrown if a real service gives no answer. */
public final class RealServiceFailed extends IOException {

  private static final long serialVersionUID = 1;

  private static final String NO_TLS = "not an SSL/TLS record";
  private static final int LONGEST = 200;

  private final transient Exchange exchange;

  /**
   * Creates an exception with the exchange.
   *
   * @param exchange the fault, as it can be replayed
   */
  public RealServiceFailed(Exchange exchange, Throwable cause) {
    super(exchange.outcome() + " (" + innermost(cause) + ")", cause);
    this.exchange = exchange;
  }

  /** The innermost cause says most: "unable to find valid certification path". */
  private static String innermost(Throwable failure) {
    Throwable cause = failure;
    while (cause.getCause() != null) {
      cause = cause.getCause();
    }
    String message = cause.getMessage() == null ? cause.toString() : cause.getMessage();
    // Followed by all the bytes that came instead.
    return message.startsWith(NO_TLS) ? "it does not speak TLS" : shortened(message);
  }

  private static String shortened(String message) {
    return message.length() <= LONGEST ? message : message.substring(0, LONGEST) + "...";
  }

  /** Returns the exchange. */
  public Exchange exchange() {
    return exchange;
  }

  /** Returns the cause. */
  Fault.Kind kind() {
    return exchange.fault().orElse(Fault.Kind.CONNECTION_RESET);
  }

  /**
   * Returns the explanation for a caller that gets it as a response.
   *
   * @param request the call that was to be answered
   */
  String explanation(Request request) {
    return "The real service did not answer: "
        + request
        + "\n\n"
        + getMessage()
        + "\n\nFix: "
        + fix(true)
        + "\n";
  }

  /**
   * Returns what to do about it.
   *
   * @param byCommand true for the command line, false for Java
   */
  String fix(boolean byCommand) {
    return switch (kind()) {
      case UNTRUSTED_AUTHORITY ->
          byCommand
              ? "give the certificate of its authority with --trusted-ca FILE."
              : "trust the certificate of its authority, RealServices.trusting(file).";
      case WRONG_HOST_CERTIFICATE ->
          byCommand
              ? "give the host name of its certificate with --upstream-name NAME."
              : "give the host name of its certificate, RealServices.at(origin, address,"
                  + " hostName).";
      case EXPIRED_CERTIFICATE, NOT_YET_VALID_CERTIFICATE ->
          "renew the certificate of the service, or correct the clock of this machine.";
      case HANDSHAKE_REFUSED, OUTDATED_TLS ->
          "check that the service speaks TLS there, in a version and with a cipher suite that Java"
              + " supports.";
      case UNKNOWN_HOST ->
          byCommand
              ? "correct the host name, or give its address with --upstream."
              : "correct the host name, or give its address, RealServices.at(origin, address).";
      case CONNECT_TIMEOUT, NO_RESPONSE ->
          "check that the service runs, and that no firewall or proxy is in the way.";
      case CONNECTION_REFUSED,
          CONNECTION_RESET,
          CONNECTION_CLOSED,
          STREAM_RESET,
          GO_AWAY,
          NOT_HTTP,
          RESET_MID_BODY,
          RESET_AFTER,
          TRUNCATED,
          MALFORMED_CHUNKS ->
          "start the service, or correct its address.";
    };
  }
}
