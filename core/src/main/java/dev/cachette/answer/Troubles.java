package dev.cachette.answer;

import dev.cachette.answer.Trouble.Kind;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Response;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * Makes troubles, to be imported statically: what goes wrong for real, in the network, in TLS or in
 * the protocol, so that the code under test meets it as its HTTP client shows it.
 *
 * <p>A trouble is an answer as any other, and can be one of several in turn: {@code
 * .answer(connectionReset(), json(tides))}.
 *
 * <p>Some come before there is a request: an unknown host, a connection that is refused or times
 * out, and all of TLS. They meet the next look-up, connection or handshake for the host and port of
 * the stub, whatever it asks for then; no call is logged, as none arrives. Where the turn of such a
 * trouble comes, connections that clients keep open to that host are ended, so that the next call
 * makes a new one. A client that looks up, connects or shakes hands more than once for one call
 * takes more than one turn. Where there is no connection of the caller's to turn, as at a base URL
 * of ours, the call arrives, and its connection is reset.
 */
public final class Troubles {

  private static final int HALF = -1;
  private static final int HEADER_PIECE = 4_096;

  private Troubles() {}

  /** The name of the host is not found. */
  public static Trouble unknownHost() {
    return Trouble.of(Kind.UNKNOWN_HOST);
  }

  /** Nobody listens at the port. */
  public static Trouble connectionRefused() {
    return Trouble.of(Kind.CONNECTION_REFUSED);
  }

  /**
   * The connection is neither accepted nor refused, until the client's own connect time-out; where
   * it has none, until the test ends. On Windows, whose listeners refuse what they cannot take, it
   * is refused.
   */
  public static Trouble connectTimeout() {
    return Trouble.of(Kind.CONNECT_TIMEOUT);
  }

  /** The server's certificate is by a trusted authority and for this host, but has expired. */
  public static Trouble expiredCertificate() {
    return Trouble.of(Kind.EXPIRED_CERTIFICATE);
  }

  /** The server's certificate becomes valid tomorrow. */
  public static Trouble notYetValidCertificate() {
    return Trouble.of(Kind.NOT_YET_VALID_CERTIFICATE);
  }

  /** The server's certificate is by a trusted authority, but for another host. */
  public static Trouble wrongHostCertificate() {
    return Trouble.of(Kind.WRONG_HOST_CERTIFICATE);
  }

  /** The server's certificate is by an authority that nobody knows. */
  public static Trouble untrustedAuthority() {
    return Trouble.of(Kind.UNTRUSTED_AUTHORITY);
  }

  /** The server refuses the TLS handshake: alert 40, handshake_failure (RFC 8446 section 6). */
  public static Trouble handshakeRefused() {
    return Trouble.of(Kind.HANDSHAKE_REFUSED);
  }

  /** The server speaks no TLS newer than 1.0. */
  public static Trouble oldTlsOnly() {
    return Trouble.of(Kind.OLD_TLS_ONLY);
  }

  /** The connection is reset (TCP RST) when the request has arrived. */
  public static Trouble connectionReset() {
    return Trouble.of(Kind.CONNECTION_RESET);
  }

  /** The connection is closed in order when the request has arrived, without an answer. */
  public static Trouble connectionClosed() {
    return Trouble.of(Kind.CONNECTION_CLOSED);
  }

  /** Nothing comes, until the client gives up or the test ends. */
  public static Trouble silence() {
    return Trouble.of(Kind.SILENCE);
  }

  /**
   * The HTTP/2 stream is reset with INTERNAL_ERROR (RFC 9113 section 6.4), its connection stays. A
   * call by HTTP/1.1, which has no streams, fails the test and says so.
   */
  public static Trouble streamReset() {
    return Trouble.of(Kind.STREAM_RESET);
  }

  /**
   * The HTTP/2 connection ends with GOAWAY (RFC 9113 section 6.8), which says that this call was
   * not processed. A call by HTTP/1.1 fails the test and says so.
   */
  public static Trouble goAway() {
    return Trouble.of(Kind.GO_AWAY);
  }

  /** Bytes that are no HTTP come in place of an answer: the greeting of a mail server. */
  public static Trouble noHttp() {
    return noHttp("220 harbour.example ESMTP\r\n".getBytes(StandardCharsets.US_ASCII));
  }

  /**
   * These bytes come in place of an answer; then the connection is closed.
   *
   * @throws IllegalArgumentException if they are null or none
   */
  public static Trouble noHttp(byte[] bytes) {
    if (bytes == null || bytes.length == 0) {
      throw new IllegalArgumentException(
          "noHttp(bytes) was given no bytes. Mend: connectionClosed() sends none.");
    }
    return Trouble.raw(Body.of(bytes));
  }

  /** The connection is reset in the middle of the body. */
  public static Trouble resetWithin(ResponseAnswer answer) {
    return within(Kind.RESET_WITHIN, "resetWithin(answer)", answer, HALF);
  }

  /** The connection is reset as soon as the whole answer is sent. */
  public static Trouble resetAfter(ResponseAnswer answer) {
    return within(Kind.RESET_AFTER, "resetAfter(answer)", answer, HALF);
  }

  /** The body ends in its middle, though its content length promised more. */
  public static Trouble cutShort(ResponseAnswer answer) {
    return within(Kind.CUT_SHORT, "cutShort(answer)", answer, HALF);
  }

  /**
   * The body ends behind so many bytes, though its content length promised more.
   *
   * @param bytes at least none; where the body has no more, it is cut before its last byte
   */
  public static Trouble cutShort(ResponseAnswer answer, int bytes) {
    if (bytes < 0) {
      throw new IllegalArgumentException(
          "cutShort(answer, bytes) takes a number of bytes, not " + bytes + ".");
    }
    return within(Kind.CUT_SHORT, "cutShort(answer, bytes)", answer, bytes);
  }

  /**
   * The chunked body is broken off in its middle by a chunk that is none. By HTTP/2, which has no
   * chunks, the stream is reset there.
   */
  public static Trouble brokenChunks(ResponseAnswer answer) {
    return within(Kind.BROKEN_CHUNKS, "brokenChunks(answer)", answer, HALF);
  }

  /** A response with headers of one MiB, more than any client takes by default. */
  public static ResponseAnswer headersTooLarge() {
    return headersTooLarge(1 << 20);
  }

  /**
   * A response with headers of about so many bytes.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public static ResponseAnswer headersTooLarge(int bytes) {
    if (bytes < 1) {
      throw new IllegalArgumentException(
          "headersTooLarge(bytes) takes a positive number, not " + bytes + ".");
    }
    String[] values = new String[(bytes + HEADER_PIECE - 1) / HEADER_PIECE];
    Arrays.fill(values, "x".repeat(Math.min(bytes, HEADER_PIECE)));
    return ResponseAnswer.of(200).header("x-ballast", values);
  }

  /** The answer, called {@code text/html}, whatever it is. */
  public static ResponseAnswer wrongContentType(ResponseAnswer answer) {
    requireAnswer("wrongContentType(answer)", answer);
    return answer.header("content-type", "text/html; charset=utf-8");
  }

  /** The answer with its text cut in the middle, so that it is no JSON any more; else in order. */
  public static ResponseAnswer invalidJson(ResponseAnswer answer) {
    Response response = requireBody("invalidJson(answer)", answer).response();
    byte[] all = response.body().bytes();
    return answer.read(Body.of(Arrays.copyOf(all, (all.length + 1) / 2)));
  }

  /** The answer, said to be gzip, with a body that is not. */
  public static ResponseAnswer badGzip(ResponseAnswer answer) {
    return requireBody("badGzip(answer)", answer).header("content-encoding", "gzip");
  }

  /**
   * The answer with its text in UTF-16, though its content type says UTF-8.
   *
   * @throws IllegalArgumentException if it has no body
   */
  public static ResponseAnswer wrongCharset(ResponseAnswer answer) {
    Response response = requireBody("wrongCharset(answer)", answer).response();
    Headers headers = response.headers();
    String type =
        headers
            .contentType()
            .map(it -> new MediaType(it.type(), it.subtype(), Optional.of(StandardCharsets.UTF_8)))
            .map(MediaType::toString)
            .orElse("text/plain; charset=utf-8");
    return answer
        .read(Body.of(response.text(), StandardCharsets.UTF_16))
        .header("content-type", type);
  }

  private static Trouble within(Kind kind, String what, ResponseAnswer answer, int bytes) {
    int size = requireBody(what, answer).response().body().size();
    return Trouble.within(kind, answer, bytes == HALF ? size / 2 : Math.min(bytes, size - 1));
  }

  private static ResponseAnswer requireBody(String what, ResponseAnswer answer) {
    requireAnswer(what, answer);
    if (answer.response().body().isEmpty()) {
      throw new IllegalArgumentException(
          String.format(
              "%s takes an answer with a body in memory, not %s. Mend: json(...), text(...) or "
                  + "bytes(...).",
              what, answer));
    }
    return answer;
  }

  private static void requireAnswer(String what, ResponseAnswer answer) {
    if (answer == null) {
      throw new IllegalArgumentException(what + " was given null.");
    }
  }
}
