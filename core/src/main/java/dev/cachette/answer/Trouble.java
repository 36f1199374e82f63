package dev.cachette.answer;

import dev.cachette.http.Body;
import java.util.Locale;
import java.util.Optional;

/**
 * A failure of network, TLS or protocol, as an answer. Made by {@link Troubles}. Every modifier
 * returns a new trouble.
 */
public final class Trouble implements Answer, Timed<Trouble> {

  /** What goes wrong, in the order in which a call can meet it. */
  public enum Kind {
    /** The name of the host is not found. */
    UNKNOWN_HOST(Stage.NAME),
    /** Nobody listens at the port. */
    CONNECTION_REFUSED(Stage.CONNECTION),
    /** The connection is neither accepted nor refused. */
    CONNECT_TIMEOUT(Stage.CONNECTION),
    /** The certificate has expired. */
    EXPIRED_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is not valid yet. */
    NOT_YET_VALID_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is for another host. */
    WRONG_HOST_CERTIFICATE(Stage.HANDSHAKE),
    /** The certificate is by an authority that nobody knows. */
    UNTRUSTED_AUTHORITY(Stage.HANDSHAKE),
    /** The server refuses the handshake with an alert. */
    HANDSHAKE_REFUSED(Stage.HANDSHAKE),
    /** The server chooses TLS 1.0. */
    OLD_TLS_ONLY(Stage.HANDSHAKE),
    /** The connection is reset in place of an answer. */
    CONNECTION_RESET(Stage.ANSWER),
    /** The connection is closed in place of an answer. */
    CONNECTION_CLOSED(Stage.ANSWER),
    /** Nothing comes. */
    SILENCE(Stage.ANSWER),
    /** The HTTP/2 stream is reset in place of an answer. */
    STREAM_RESET(Stage.ANSWER),
    /** The HTTP/2 connection goes away, and this call was not processed. */
    GO_AWAY(Stage.ANSWER),
    /** Bytes come that are no HTTP. */
    NO_HTTP(Stage.ANSWER),
    /** The connection is reset within the body. */
    RESET_WITHIN(Stage.ANSWER),
    /** The connection is reset behind the whole answer. */
    RESET_AFTER(Stage.ANSWER),
    /** The body ends before its content length. */
    CUT_SHORT(Stage.ANSWER),
    /** The chunked body is broken off. */
    BROKEN_CHUNKS(Stage.ANSWER);

    private final Stage stage;

    Kind(Stage stage) {
      this.stage = stage;
    }

    /** When a call meets it. */
    public Stage stage() {
      return stage;
    }
  }

  /** How far a call gets before the trouble. */
  public enum Stage {
    /** Until the host's name is looked up. */
    NAME,
    /** Until a connection is made. */
    CONNECTION,
    /** Until the TLS handshake. */
    HANDSHAKE,
    /** Until it has arrived as a whole. */
    ANSWER;

    /** Whether the trouble comes before there is a request. */
    public boolean isEarly() {
      return this != ANSWER;
    }
  }

  private final Kind kind;
  private final Optional<ResponseAnswer> answer;
  private final int bytes;
  private final Body raw;
  private final Timing timing;

  private Trouble(Kind kind, Optional<ResponseAnswer> answer, int bytes, Body raw, Timing timing) {
    this.kind = kind;
    this.answer = answer;
    this.bytes = bytes;
    this.raw = raw;
    this.timing = timing;
  }

  static Trouble of(Kind kind) {
    return new Trouble(kind, Optional.empty(), 0, Body.empty(), Timing.AT_ONCE);
  }

  static Trouble within(Kind kind, ResponseAnswer answer, int bytes) {
    return new Trouble(kind, Optional.of(answer), bytes, Body.empty(), answer.timing());
  }

  static Trouble raw(Body raw) {
    return new Trouble(Kind.NO_HTTP, Optional.empty(), 0, raw, Timing.AT_ONCE);
  }

  /** What goes wrong. */
  public Kind kind() {
    return kind;
  }

  /** The answer in which it goes wrong; empty if there is none. */
  public Optional<ResponseAnswer> answer() {
    return answer;
  }

  /** Behind how many bytes of the body it goes wrong. */
  public int bytes() {
    return bytes;
  }

  /** What is sent that is no HTTP. */
  public Body raw() {
    return raw;
  }

  @Override
  public Timing timing() {
    return timing;
  }

  /**
   * The same trouble, by another timing.
   *
   * @throws IllegalStateException if it comes before there is a request that could be held
   */
  @Override
  public Trouble timed(Timing other) {
    if (kind.stage().isEarly()) {
      throw new IllegalStateException(
          String.format(
              "%s comes before there is a request, so it cannot be delayed or held. "
                  + "Mend: connectTimeout() is a connection that takes for ever.",
              this));
    }
    return new Trouble(kind, answer, bytes, raw, other);
  }

  /** What goes wrong, in words: {@code connection reset}. */
  @Override
  public String toString() {
    return kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }
}
