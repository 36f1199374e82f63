// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.answer.Fault.Kind;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Response;
import dev.cachette.internal.misuse.Refusals;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * Creates faults, for static import: real failures of the network, of TLS or of the protocol, which
 * the code under test sees the way its HTTP client reports them.
 *
 * <p>A fault is an answer like any other, and can be one of several in turn: {@code
 * .answer(connectionReset(), json(tides))}.
 *
 * <p>Some faults happen before there is a request: an unknown host, a refused connection, a connect
 * timeout, and all TLS faults. They affect the next look-up, connection or handshake for the host
 * and port of the stub, whatever the request is; no call is logged, because none arrives. When it
 * is such a fault's turn, open connections to that host are closed, so that the next call makes a
 * new one. A client that looks up, connects or performs a handshake several times for one call uses
 * several turns. If there is no connection of the client to redirect, as at a base URL of
 * Cachette's, the call arrives and its connection is reset.
 */
public final class Faults {

  private static final int HALF = -1;
  private static final int HEADER_PIECE = 4_096;

  private Faults() {}

  /** The host name cannot be resolved. */
  public static Fault unknownHost() {
    return Fault.of(Kind.UNKNOWN_HOST);
  }

  /** The connection is refused: nothing listens on the port. */
  public static Fault connectionRefused() {
    return Fault.of(Kind.CONNECTION_REFUSED);
  }

  /**
   * The connection is neither accepted nor refused, until the client's own connect timeout; without
   * one, until the test ends. On Windows, where a full listener refuses connections, it is refused.
   */
  public static Fault connectTimeout() {
    return Fault.of(Kind.CONNECT_TIMEOUT);
  }

  /** The server's certificate is from a trusted authority and for this host, but has expired. */
  public static Fault expiredCertificate() {
    return Fault.of(Kind.EXPIRED_CERTIFICATE);
  }

  /** The server's certificate is not valid until tomorrow. */
  public static Fault notYetValidCertificate() {
    return Fault.of(Kind.NOT_YET_VALID_CERTIFICATE);
  }

  /** The server's certificate is from a trusted authority, but for another host. */
  public static Fault wrongHostCertificate() {
    return Fault.of(Kind.WRONG_HOST_CERTIFICATE);
  }

  /** The server's certificate is from an unknown authority. */
  public static Fault untrustedAuthority() {
    return Fault.of(Kind.UNTRUSTED_AUTHORITY);
  }

  /** The server rejects the TLS handshake: alert 40, handshake_failure (RFC 8446 section 6). */
  public static Fault handshakeRefused() {
    return Fault.of(Kind.HANDSHAKE_REFUSED);
  }

  /** The server supports no TLS version newer than 1.0. */
  public static Fault outdatedTls() {
    return Fault.of(Kind.OUTDATED_TLS);
  }

  /** The connection is reset (TCP RST) after the request has arrived. */
  public static Fault connectionReset() {
    return Fault.of(Kind.CONNECTION_RESET);
  }

  /** The connection is closed (TCP FIN) after the request has arrived, without an answer. */
  public static Fault connectionClosed() {
    return Fault.of(Kind.CONNECTION_CLOSED);
  }

  /** No response is sent: the client waits until its own timeout, or until the test ends. */
  public static Fault noResponse() {
    return Fault.of(Kind.NO_RESPONSE);
  }

  /**
   * The HTTP/2 stream is reset with INTERNAL_ERROR (RFC 9113 section 6.4); its connection stays
   * open. A call over HTTP/1.1, which has no streams, fails the test with an explanation.
   */
  public static Fault streamReset() {
    return Fault.of(Kind.STREAM_RESET);
  }

  /**
   * The HTTP/2 connection ends with GOAWAY (RFC 9113 section 6.8): this call was not processed. A
   * call over HTTP/1.1 fails the test with an explanation.
   */
  public static Fault goAway() {
    return Fault.of(Kind.GO_AWAY);
  }

  /**
   * The bytes that are sent instead of an answer are not HTTP, but the greeting of a mail server.
   */
  public static Fault notHttp() {
    return notHttp("220 harbour.example ESMTP\r\n".getBytes(StandardCharsets.US_ASCII));
  }

  /**
   * These bytes are sent instead of an answer; then the connection is closed.
   *
   * @throws IllegalArgumentException if they are null or empty
   */
  public static Fault notHttp(byte[] bytes) {
    if (bytes == null || bytes.length == 0) {
      throw Refusals.argument(
          "notHttp(bytes) was given no bytes. Fix: use connectionClosed() to send nothing.");
    }
    return Fault.raw(Body.of(bytes));
  }

  /** The connection is reset in the middle of the body. */
  public static Fault resetMidBody(ResponseAnswer answer) {
    return within(Kind.RESET_MID_BODY, "resetMidBody(answer)", answer, HALF);
  }

  /** The connection is reset right after the complete answer. */
  public static Fault resetAfter(ResponseAnswer answer) {
    return within(Kind.RESET_AFTER, "resetAfter(answer)", answer, HALF);
  }

  /** The body ends in the middle, before its content length. */
  public static Fault truncated(ResponseAnswer answer) {
    return within(Kind.TRUNCATED, "truncated(answer)", answer, HALF);
  }

  /**
   * The body ends after this many bytes, before its content length.
   *
   * @param bytes 0 or more; if the body is not longer, it is cut before its last byte
   */
  public static Fault truncated(ResponseAnswer answer, int bytes) {
    if (bytes < 0) {
      throw Refusals.argument(
          "truncated(answer, bytes) needs a number of bytes that is not negative, not "
              + bytes
              + ".");
    }
    return within(Kind.TRUNCATED, "truncated(answer, bytes)", answer, bytes);
  }

  /**
   * The chunked body has a malformed chunk in the middle. Over HTTP/2, which has no chunks, the
   * stream is reset there.
   */
  public static Fault malformedChunks(ResponseAnswer answer) {
    return within(Kind.MALFORMED_CHUNKS, "malformedChunks(answer)", answer, HALF);
  }

  /** A response with headers of one MiB, more than any client accepts by default. */
  public static ResponseAnswer headersTooLarge() {
    return headersTooLarge(1 << 20);
  }

  /**
   * A response with headers of about this many bytes.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public static ResponseAnswer headersTooLarge(int bytes) {
    if (bytes < 1) {
      throw Refusals.argument("headersTooLarge(bytes) needs a positive number, not " + bytes + ".");
    }
    String[] values = new String[(bytes + HEADER_PIECE - 1) / HEADER_PIECE];
    Arrays.fill(values, "x".repeat(Math.min(bytes, HEADER_PIECE)));
    return ResponseAnswer.of(200).header("x-ballast", values);
  }

  /** The answer with the content type {@code text/html}, whatever its content is. */
  public static ResponseAnswer wrongContentType(ResponseAnswer answer) {
    requireAnswer("wrongContentType(answer)", answer);
    return answer.header("content-type", "text/html; charset=utf-8");
  }

  /**
   * The answer with its text cut in the middle, so that it is not valid JSON; otherwise unchanged.
   */
  public static ResponseAnswer invalidJson(ResponseAnswer answer) {
    Response response = requireBody("invalidJson(answer)", answer).response();
    byte[] all = response.body().bytes();
    return answer.read(Body.of(Arrays.copyOf(all, (all.length + 1) / 2)));
  }

  /** The answer labelled as gzip, with a body that is not gzip. */
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

  private static Fault within(Kind kind, String what, ResponseAnswer answer, int bytes) {
    int size = requireBody(what, answer).response().body().size();
    return Fault.within(kind, answer, bytes == HALF ? size / 2 : Math.min(bytes, size - 1));
  }

  private static ResponseAnswer requireBody(String what, ResponseAnswer answer) {
    requireAnswer(what, answer);
    if (answer.response().body().isEmpty()) {
      throw Refusals.argument(
          String.format(
              "%s needs an answer with a body in memory, not %s. Fix: json(...), text(...) or"
                  + " bytes(...).",
              what, answer));
    }
    return answer;
  }

  private static void requireAnswer(String what, ResponseAnswer answer) {
    Refusals.given(what, answer);
  }
}
