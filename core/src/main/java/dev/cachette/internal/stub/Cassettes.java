package dev.cachette.internal.stub;

import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.cassette.Exchange.Piece;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Answers requests without a stub from the active cassettes. */
final class Cassettes {

  private Cassettes() {}

  /** The choice for a request. */
  static final class Choice {

    private final LoadedCassette cassette;

    /** The exchange that answers it; empty to ask the real service. */
    private final Optional<LoadedCassette.Replayed> replayed;

    private final Instant arrived;

    private boolean kept;
    private @Nullable Runnable arriving;

    private Choice(
        LoadedCassette cassette, Optional<LoadedCassette.Replayed> replayed, Instant arrived) {
      this.cassette = cassette;
      this.replayed = replayed;
      this.arrived = arrived;
    }

    boolean records() {
      return replayed.isEmpty();
    }

    StubReference reference() {
      return replayed
          .map(LoadedCassette.Replayed::reference)
          .orElseGet(() -> new StubReference("recorded into " + cassette.name(), "cassette"));
    }

    /**
     * Returns the reply; if the real service is asked, this blocks until it answers.
     *
     * @param listener receives what it has answered, when it is complete
     * @throws RealServiceFailed if it does not answer; that is recorded, too
     */
    Reply reply(
        Request request,
        ConnectionInfo carrier,
        HostServices outside,
        Consumer<dev.cachette.cassette.Exchange> listener)
        throws RealServiceFailed {
      return replayed.isPresent()
          ? replay(replayed.get())
          : record(request, carrier, outside, listener);
    }

    /** Times out for a service that does not answer: it will not do so the next time either. */
    void hungUp(Request request, Instant now) {
      if (records()) {
        Duration waited = Duration.between(arrived, now);
        keep(
            dev.cachette.cassette.Exchange.failed(
                arrived, waited, request, Fault.Kind.NO_RESPONSE));
      }
    }

    private synchronized void follow(RealResponse.Arriving body) {
      if (!kept) {
        arriving = body::stop;
        cassette.begin(arriving);
      }
    }

    private synchronized void ended(dev.cachette.cassette.Exchange exchange) {
      if (arriving != null) {
        cassette.ended(arriving);
      }
      keep(exchange);
    }

    private synchronized void keep(dev.cachette.cassette.Exchange exchange) {
      if (!kept) {
        kept = true;
        cassette.keep(exchange);
      }
    }

    private Reply replay(LoadedCassette.Replayed recording) {
      Duration time = recording.delay();
      if (recording.exchange().fault().isPresent()) {
        return Reply.fault(fault(recording.exchange().fault().get()), Schedule.after(time));
      }
      Response response = recording.exchange().response().orElseThrow();
      if (recording.pauses().isEmpty()) {
        return time.isZero()
            ? Reply.of(response)
            : Reply.of(response).in(List.of(response.body()), Schedule.after(time));
      }
      List<Body> pieces = inPieces(response.body(), recording.exchange().pieces());
      Schedule schedule = new Schedule(time, Duration.ZERO, recording.pauses(), 0, List.of());
      return response.headers().has("content-length")
          ? Reply.of(response).in(pieces, schedule)
          : Reply.stream(response, pieces, Optional.empty(), schedule);
    }

    /** The body may have other bytes than when it was recorded: secrets are redacted and filled. */
    private static List<Body> inPieces(
        Body body, List<dev.cachette.cassette.Exchange.Piece> recorded) {
      long size = Math.max(1, recorded.stream().mapToLong(Piece::size).sum());
      byte[] all = body.bytes();
      List<Body> pieces = new ArrayList<>(recorded.size());
      long arrived = 0;
      int from = 0;
      for (Piece piece : recorded) {
        arrived += piece.size();
        int to = (int) (all.length * arrived / size);
        pieces.add(Body.of(Arrays.copyOfRange(all, from, to)));
        from = to;
      }
      return pieces;
    }

    private Reply record(
        Request request,
        ConnectionInfo carrier,
        HostServices outside,
        Consumer<dev.cachette.cassette.Exchange> listener)
        throws RealServiceFailed {
      try {
        RealResponse real =
            outside
                .realService()
                .begin(
                    request,
                    carrier.protocol(),
                    exchange -> {
                      listener.accept(exchange);
                      ended(exchange);
                    });
        real.arriving().ifPresentOrElse(this::follow, cassette::awaitWritten);
        return real.reply();
      } catch (RealServiceFailed failed) {
        keep(failed.exchange());
        cassette.awaitWritten();
        throw failed;
      }
    }
  }

  /** Returns who answers: the first cassette that has an exchange, else the first that records. */
  static Optional<Choice> choose(List<LoadedCassette> cassettes, Request request, Instant arrived) {
    for (LoadedCassette cassette : cassettes) {
      Optional<LoadedCassette.Replayed> replayed = cassette.replay(request);
      if (replayed.isPresent()) {
        return Optional.of(new Choice(cassette, replayed, arrived));
      }
    }
    return cassettes.stream()
        .filter(LoadedCassette::records)
        .findFirst()
        .map(cassette -> new Choice(cassette, Optional.empty(), arrived));
  }

  /** Returns the recorded fault of a connection, if there is one, and moves on past it. */
  static Optional<Fault> meet(
      List<LoadedCassette> cassettes, Fault.Stage stage, String host, OptionalInt port) {
    for (LoadedCassette cassette : cassettes) {
      Optional<Fault.Kind> next =
          cassette.isFor(host, port) ? cassette.nextFault(host) : Optional.empty();
      if (next.filter(kind -> kind.stage() == stage).isPresent()) {
        cassette.skipFault(host);
        return next.map(Cassettes::early);
      }
    }
    return Optional.empty();
  }

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
      default -> Faults.connectionRefused();
    };
  }

  /** Returns a fault that is possible after a request was sent. */
  static Fault fault(Fault.Kind kind) {
    return switch (kind) {
      case CONNECTION_CLOSED -> Faults.connectionClosed();
      case NO_RESPONSE -> Faults.noResponse();
      default -> Faults.connectionReset();
    };
  }
}
