// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/** The faults in cassettes, as answers. */
final class RecordedFaults {

  private RecordedFaults() {}

  /** Returns the recorded fault of a connection, if there is one, and moves on past it. */
  static Optional<Fault> meet(
      List<LoadedCassette> cassettes, Fault.Stage stage, String host, OptionalInt port) {
    for (LoadedCassette cassette : cassettes) {
      Optional<Fault.Kind> next =
          cassette.isFor(host, port) ? cassette.nextFault(host) : Optional.empty();
      if (next.filter(kind -> kind.stage() == stage).isPresent()) {
        cassette.skipFault(host);
        return next.map(RecordedFaults::early);
      }
    }
    return Optional.empty();
  }

  /** Returns a fault before there is a request. */
  static Fault early(Fault.Kind kind) {
    return switch (kind) {
      case UNKNOWN_HOST -> Faults.unknownHost();
      case CONNECT_TIMEOUT -> Faults.connectTimeout();
      case EXPIRED_CERTIFICATE -> Faults.expiredCertificate();
      case NOT_YET_VALID_CERTIFICATE -> Faults.notYetValidCertificate();
      case WRONG_HOST_CERTIFICATE -> Faults.wrongHostCertificate();
      case UNTRUSTED_AUTHORITY -> Faults.untrustedAuthority();
      case HANDSHAKE_REFUSED -> Faults.handshakeRefused();
      case OUTDATED_TLS -> Faults.outdatedTls();
      case CONNECTION_REFUSED,
          CONNECTION_RESET,
          CONNECTION_CLOSED,
          NO_RESPONSE,
          STREAM_RESET,
          GO_AWAY,
          NOT_HTTP,
          RESET_MID_BODY,
          RESET_AFTER,
          TRUNCATED,
          MALFORMED_CHUNKS ->
          Faults.connectionRefused();
    };
  }

  /** Returns a fault that is possible after a request was sent. */
  static Fault late(Fault.Kind kind) {
    if (kind == Fault.Kind.CONNECTION_CLOSED) {
      return Faults.connectionClosed();
    }
    return kind == Fault.Kind.NO_RESPONSE ? Faults.noResponse() : Faults.connectionReset();
  }

  /** Returns true if the next recorded answer of a service needs a new connection. */
  static boolean isNextEarly(ConnectionRules connections, Request request) {
    return connections.meetsEarly(request.uri().host(), request.uri().port());
  }
}
