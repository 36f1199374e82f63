package dev.cachette.internal.stub;

import dev.cachette.answer.Trouble;
import dev.cachette.answer.Troubles;
import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.cassette.InPlay;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/** What the cassettes in play make of a request that no stub answers. */
final class Cassettes {

  private Cassettes() {}

  /** What is to be done about a request. */
  static final class Choice {

    private final InPlay cassette;

    /** The recording that answers it; empty if the real service is to be asked. */
    private final Optional<InPlay.Replayed> replayed;

    private final Instant arrived;

    private boolean kept;

    private Choice(InPlay cassette, Optional<InPlay.Replayed> replayed, Instant arrived) {
      this.cassette = cassette;
      this.replayed = replayed;
      this.arrived = arrived;
    }

    boolean records() {
      return replayed.isEmpty();
    }

    StubReference reference() {
      return replayed
          .map(InPlay.Replayed::reference)
          .orElseGet(() -> new StubReference("recorded onto " + cassette.name(), "cassette"));
    }

    /** The reply; where the real service is asked, it takes as long as that does. */
    Reply reply(Request request, Carrier carrier, Outside outside) {
      return replayed.isPresent() ? replay(replayed.get()) : record(request, carrier, outside);
    }

    /** The caller waits no longer for a service that has not answered: it will again. */
    void hungUp(Request request, Instant now) {
      if (records()) {
        Duration waited = Duration.between(arrived, now);
        keep(dev.cachette.cassette.Exchange.failed(arrived, waited, request, Trouble.Kind.SILENCE));
      }
    }

    private synchronized void keep(dev.cachette.cassette.Exchange exchange) {
      if (!kept) {
        kept = true;
        cassette.keep(exchange);
      }
    }

    private Reply replay(InPlay.Replayed recording) {
      Duration time = recording.delay();
      if (recording.exchange().trouble().isPresent()) {
        return Reply.trouble(trouble(recording.exchange().trouble().get()), Schedule.after(time));
      }
      Response response = recording.exchange().response().orElseThrow();
      return time.isZero()
          ? Reply.of(response)
          : Reply.of(response).in(List.of(response.body()), Schedule.after(time));
    }

    private Reply record(Request request, Carrier carrier, Outside outside) {
      try {
        dev.cachette.cassette.Exchange exchange =
            outside.realService().call(request, carrier.protocol());
        keep(exchange);
        return Reply.of(exchange.response().orElseThrow());
      } catch (RealServiceFailed failed) {
        keep(failed.exchange());
        outside
            .warning()
            .accept(
                String.format(
                    "The real service did not answer %s: %s. Its caller meets \"%s\"; \"%s\" is "
                        + "recorded, and met on replay.",
                    request,
                    failed.getMessage(),
                    trouble(failed.kind()),
                    failed.exchange().outcome()));
        return Reply.trouble(trouble(failed.kind()), Schedule.AT_ONCE);
      }
    }
  }

  /** Who answers: the first cassette that knows it, else the first that records. */
  static Optional<Choice> choose(List<InPlay> cassettes, Request request, Instant arrived) {
    for (InPlay cassette : cassettes) {
      Optional<InPlay.Replayed> replayed = cassette.replay(request);
      if (replayed.isPresent()) {
        return Optional.of(new Choice(cassette, replayed, arrived));
      }
    }
    return cassettes.stream()
        .filter(InPlay::records)
        .findFirst()
        .map(cassette -> new Choice(cassette, Optional.empty(), arrived));
  }

  /** The trouble that a connection meets, if it was recorded; its turn is over then. */
  static Optional<Trouble> meet(
      List<InPlay> cassettes, Trouble.Stage stage, String host, OptionalInt port) {
    for (InPlay cassette : cassettes) {
      Optional<Trouble.Kind> next =
          cassette.isFor(host, port) ? cassette.nextTrouble(host) : Optional.empty();
      if (next.filter(kind -> kind.stage() == stage).isPresent()) {
        cassette.skipTrouble(host);
        return next.map(Cassettes::early);
      }
    }
    return Optional.empty();
  }

  static Trouble early(Trouble.Kind kind) {
    return switch (kind) {
      case UNKNOWN_HOST -> Troubles.unknownHost();
      case CONNECT_TIMEOUT -> Troubles.connectTimeout();
      case EXPIRED_CERTIFICATE -> Troubles.expiredCertificate();
      case NOT_YET_VALID_CERTIFICATE -> Troubles.notYetValidCertificate();
      case WRONG_HOST_CERTIFICATE -> Troubles.wrongHostCertificate();
      case UNTRUSTED_AUTHORITY -> Troubles.untrustedAuthority();
      case HANDSHAKE_REFUSED -> Troubles.handshakeRefused();
      case OLD_TLS_ONLY -> Troubles.oldTlsOnly();
      default -> Troubles.connectionRefused();
    };
  }

  /** What a caller can meet who has sent a request already. */
  private static Trouble trouble(Trouble.Kind kind) {
    return switch (kind) {
      case CONNECTION_CLOSED -> Troubles.connectionClosed();
      case SILENCE -> Troubles.silence();
      default -> Troubles.connectionReset();
    };
  }
}
