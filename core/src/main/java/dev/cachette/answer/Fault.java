// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.http.Body;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.misuse.Refusals;
import java.util.Locale;
import java.util.Optional;

/**
 * A failure of network, TLS or protocol, as an answer. Created by {@link Faults}. Every modifier
 * returns a new fault.
 */
public final class Fault extends Timed<Fault> {

  /** The kinds of faults, in the order in which a call can encounter them. */
  public enum Kind {
    /** The host name cannot be resolved. */
    UNKNOWN_HOST(Stage.NAME),
    /** Nothing listens on the port. */
    CONNECTION_REFUSED(Stage.CONNECTION),
    /** The connection is neither accepted nor refused. */
    CONNECT_TIMEOUT(Stage.CONNECTION),
    /** The certificate has expired. */
    EXPIRED_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is not valid yet. */
    NOT_YET_VALID_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is for another host. */
    WRONG_HOST_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is issued by an unknown authority. */
    UNTRUSTED_AUTHORITY(Stage.HANDSHAKE),
    /** The server rejects the TLS handshake with an alert. */
    HANDSHAKE_REFUSED(Stage.HANDSHAKE),
    /** The server negotiates TLS 1.0. */
    OUTDATED_TLS(Stage.HANDSHAKE),
    /** The connection is reset instead of an answer. */
    CONNECTION_RESET(Stage.ANSWER),
    /** The connection is closed instead of an answer. */
    CONNECTION_CLOSED(Stage.ANSWER),
    /** No response is sent. */
    NO_RESPONSE(Stage.ANSWER),
    /** The HTTP/2 stream is reset instead of an answer. */
    STREAM_RESET(Stage.ANSWER),
    /** The HTTP/2 connection ends with GOAWAY, and this call was not processed. */
    GO_AWAY(Stage.ANSWER),
    /** The bytes that are sent are not HTTP. */
    NOT_HTTP(Stage.ANSWER),
    /** The connection is reset in the middle of the body. */
    RESET_MID_BODY(Stage.ANSWER),
    /** The connection is reset after the complete answer. */
    RESET_AFTER(Stage.ANSWER),
    /** The body is shorter than its content length. */
    TRUNCATED(Stage.ANSWER),
    /** The chunked body has a malformed chunk. */
    MALFORMED_CHUNKS(Stage.ANSWER);

    private final Stage stage;

    Kind(Stage stage) {
      this.stage = stage;
    }

    /** Returns the stage at which a call encounters it. */
    public Stage stage() {
      return stage;
    }
  }

  /** How far a call gets before the fault. */
  public enum Stage {
    /** Until the host name is resolved. */
    NAME,
    /** Until the connection is established. */
    CONNECTION,
    /** Until the TLS handshake. */
    HANDSHAKE,
    /** Until the complete request has arrived. */
    ANSWER;

    /** Returns true if the fault happens before there is a request. */
    public boolean isEarly() {
      return this != ANSWER;
    }
  }

  private final Kind kind;
  private final Optional<ResponseAnswer> answer;
  private final int bytes;
  private final Body raw;
  private final Timing timing;

  private Fault(Kind kind, Optional<ResponseAnswer> answer, int bytes, Body raw, Timing timing) {
    this.kind = kind;
    this.answer = answer;
    this.bytes = bytes;
    this.raw = raw;
    this.timing = timing;
  }

  static Fault of(Kind kind) {
    return new Fault(kind, Optional.empty(), 0, Body.empty(), Timing.AT_ONCE);
  }

  static Fault within(Kind kind, ResponseAnswer answer, int bytes) {
    return new Fault(kind, Optional.of(answer), bytes, Body.empty(), answer.timing());
  }

  static Fault raw(Body raw) {
    return new Fault(Kind.NOT_HTTP, Optional.empty(), 0, raw, Timing.AT_ONCE);
  }

  /** Returns the kind of fault. */
  public Kind kind() {
    return kind;
  }

  /** Returns the answer that the fault interrupts; empty if there is none. */
  public Optional<ResponseAnswer> answer() {
    return answer;
  }

  /** Returns the number of bytes of the body that are sent before the fault. */
  int bytes() {
    return bytes;
  }

  /** Returns the bytes that are sent, which are not HTTP. */
  Body raw() {
    return raw;
  }

  @Override
  Timing timing() {
    return timing;
  }

  /**
   * Returns the same fault with another timing.
   *
   * @throws IllegalStateException if it happens before there is a request that could be held
   */
  @Override
  Fault timed(Timing other) {
    if (kind.stage().isEarly()) {
      throw Refusals.state(
          String.format(
              "%s happens before there is a request, so it cannot be delayed or held. Fix: use"
                  + " connectTimeout() for a connection that is never established.",
              this));
    }
    return new Fault(kind, answer, bytes, raw, other);
  }

  /** Returns the kind of fault in words: {@code connection reset}. */
  @Override
  public String toString() {
    return kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }
}
