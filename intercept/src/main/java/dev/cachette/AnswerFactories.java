// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.ComputedAnswer;
import dev.cachette.answer.Event;
import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.answer.Feed;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.match.Received;
import java.nio.file.Path;
import java.util.Map;
import java.util.function.Function;

/** The part of {@link Factories} that creates answers and faults. */
abstract class AnswerFactories {

  AnswerFactories() {}

  /**
   * Returns JSON text, sent unchanged as {@code application/json}.
   *
   * @see Answers#json(String)
   */
  public static ResponseAnswer json(String text) {
    return Answers.json(text);
  }

  /**
   * Returns an object written as JSON by Jackson, with every Jackson module on the classpath.
   *
   * @see Answers#json(Object)
   */
  public static ResponseAnswer json(Object value) {
    return Answers.json(value);
  }

  /**
   * Returns an object written as JSON by a given mapper.
   *
   * @see Answers#json(Object, ObjectMapper)
   */
  public static ResponseAnswer json(Object value, ObjectMapper mapper) {
    return Answers.json(value, mapper);
  }

  /**
   * Returns XML text, sent unchanged as {@code application/xml} in UTF-8.
   *
   * @see Answers#xml(String)
   */
  public static ResponseAnswer xml(String text) {
    return Answers.xml(text);
  }

  /**
   * Returns text, as {@code text/plain} in UTF-8.
   *
   * @see Answers#text(String)
   */
  public static ResponseAnswer text(String text) {
    return Answers.text(text);
  }

  /**
   * Returns an HTML page, as {@code text/html} in UTF-8.
   *
   * @see Answers#html(String)
   */
  public static ResponseAnswer html(String page) {
    return Answers.html(page);
  }

  /**
   * Returns bytes, as {@code application/octet-stream}.
   *
   * @see Answers#bytes(byte[])
   */
  public static ResponseAnswer bytes(byte[] bytes) {
    return Answers.bytes(bytes);
  }

  /**
   * Returns bytes of this content type.
   *
   * @see Answers#bytes(String, byte[])
   */
  public static ResponseAnswer bytes(String contentType, byte[] bytes) {
    return Answers.bytes(contentType, bytes);
  }

  /**
   * Returns a URL-encoded form, with fields in the order of the map.
   *
   * @see Answers#form(Map)
   */
  public static ResponseAnswer form(Map<String, String> fields) {
    return Answers.form(fields);
  }

  /**
   * Returns the content of a file, read when the answer is given to a stub.
   *
   * @see Answers#file(String)
   */
  public static ResponseAnswer file(String path) {
    return Answers.file(path);
  }

  /**
   * Returns the content of a file, read when the answer is given to a stub.
   *
   * @see Answers#file(Path)
   */
  public static ResponseAnswer file(Path path) {
    return Answers.file(path);
  }

  /**
   * Returns the content of a resource on the classpath, read when the answer is given to a stub.
   *
   * @see Answers#classpath(String)
   */
  public static ResponseAnswer classpath(String name) {
    return Answers.classpath(name);
  }

  /**
   * Returns a status without body and headers.
   *
   * @see Answers#status(int)
   */
  public static ResponseAnswer status(int code) {
    return Answers.status(code);
  }

  /**
   * Returns a problem (RFC 9457), as {@code application/problem+json}.
   *
   * @see Answers#problem(int, String)
   */
  public static ResponseAnswer problem(int status, String title) {
    return Answers.problem(status, title);
  }

  /**
   * Returns a problem (RFC 9457) with further members: {@code type}, {@code detail}, {@code
   * instance}, or others that Jackson can write.
   *
   * @see Answers#problem(int, String, Map)
   */
  public static ResponseAnswer problem(int status, String title, Map<String, ?> members) {
    return Answers.problem(status, title, members);
  }

  /**
   * Returns a redirect with status 302; {@code .status(308)} preserves method and body.
   *
   * @see Answers#redirect(String)
   */
  public static ResponseAnswer redirect(String location) {
    return Answers.redirect(location);
  }

  /**
   * Returns what a function computes from the request.
   *
   * @see Answers#computed(Function)
   */
  public static ComputedAnswer computed(Function<Received, Answer> function) {
    return Answers.computed(function);
  }

  /**
   * Returns text with expressions that are filled from the request.
   *
   * @see Answers#template(String, String)
   */
  public static ResponseAnswer template(String mediaType, String text) {
    return Answers.template(mediaType, text);
  }

  /**
   * Returns a body of no known length, sent piece by piece: each piece a chunk or DATA frame of its
   * own.
   *
   * @see Answers#stream(String, String...)
   */
  public static StreamAnswer stream(String mediaType, String... pieces) {
    return Answers.stream(mediaType, pieces);
  }

  /**
   * Returns a body of no known length, sent when the test says so.
   *
   * @see Answers#stream(String, Feed)
   */
  public static StreamAnswer stream(String mediaType, Feed feed) {
    return Answers.stream(mediaType, feed);
  }

  /**
   * Returns Server-Sent Events (WHATWG HTML); {@code .pausing(duration)} pauses between them.
   *
   * @see Answers#events(Event...)
   */
  public static StreamAnswer events(Event... events) {
    return Answers.events(events);
  }

  /**
   * Returns the answer of the real service: Cachette calls the intended destination with the same
   * method, URL, headers and body, in the HTTP version of the caller, with the JVM's trust store
   * and proxy settings, and does not follow redirects.
   *
   * @see Answers#realService()
   */
  public static RealAnswer realService() {
    return Answers.realService();
  }

  /**
   * The host name cannot be resolved.
   *
   * @see Faults#unknownHost()
   */
  public static Fault unknownHost() {
    return Faults.unknownHost();
  }

  /**
   * The connection is refused: nothing listens on the port.
   *
   * @see Faults#connectionRefused()
   */
  public static Fault connectionRefused() {
    return Faults.connectionRefused();
  }

  /**
   * The connection is neither accepted nor refused, until the client's own connect timeout; without
   * one, until the test ends.
   *
   * @see Faults#connectTimeout()
   */
  public static Fault connectTimeout() {
    return Faults.connectTimeout();
  }

  /**
   * The server's certificate is from a trusted authority and for this host, but has expired.
   *
   * @see Faults#expiredCertificate()
   */
  public static Fault expiredCertificate() {
    return Faults.expiredCertificate();
  }

  /**
   * The server's certificate is not valid until tomorrow.
   *
   * @see Faults#notYetValidCertificate()
   */
  public static Fault notYetValidCertificate() {
    return Faults.notYetValidCertificate();
  }

  /**
   * The server's certificate is from a trusted authority, but for another host.
   *
   * @see Faults#wrongHostCertificate()
   */
  public static Fault wrongHostCertificate() {
    return Faults.wrongHostCertificate();
  }

  /**
   * The server's certificate is from an unknown authority.
   *
   * @see Faults#untrustedAuthority()
   */
  public static Fault untrustedAuthority() {
    return Faults.untrustedAuthority();
  }

  /**
   * The server rejects the TLS handshake: alert 40, handshake_failure (RFC 8446 section 6).
   *
   * @see Faults#handshakeRefused()
   */
  public static Fault handshakeRefused() {
    return Faults.handshakeRefused();
  }

  /**
   * The server supports no TLS version newer than 1.0.
   *
   * @see Faults#outdatedTls()
   */
  public static Fault outdatedTls() {
    return Faults.outdatedTls();
  }

  /**
   * The connection is reset (TCP RST) after the request has arrived.
   *
   * @see Faults#connectionReset()
   */
  public static Fault connectionReset() {
    return Faults.connectionReset();
  }

  /**
   * The connection is closed (TCP FIN) after the request has arrived, without an answer.
   *
   * @see Faults#connectionClosed()
   */
  public static Fault connectionClosed() {
    return Faults.connectionClosed();
  }

  /**
   * No response is sent: the client waits until its own timeout, or until the test ends.
   *
   * @see Faults#noResponse()
   */
  public static Fault noResponse() {
    return Faults.noResponse();
  }

  /**
   * The HTTP/2 stream is reset with INTERNAL_ERROR (RFC 9113 section 6.4); its connection stays
   * open.
   *
   * @see Faults#streamReset()
   */
  public static Fault streamReset() {
    return Faults.streamReset();
  }

  /**
   * The HTTP/2 connection ends with GOAWAY (RFC 9113 section 6.8): this call was not processed.
   *
   * @see Faults#goAway()
   */
  public static Fault goAway() {
    return Faults.goAway();
  }

  /**
   * The bytes that are sent instead of an answer are not HTTP, but the greeting of a mail server.
   *
   * @see Faults#notHttp()
   */
  public static Fault notHttp() {
    return Faults.notHttp();
  }

  /**
   * These bytes are sent instead of an answer; then the connection is closed.
   *
   * @see Faults#notHttp(byte[])
   */
  public static Fault notHttp(byte[] bytes) {
    return Faults.notHttp(bytes);
  }

  /**
   * The connection is reset in the middle of the body.
   *
   * @see Faults#resetMidBody(ResponseAnswer)
   */
  public static Fault resetMidBody(ResponseAnswer answer) {
    return Faults.resetMidBody(answer);
  }

  /**
   * The connection is reset right after the complete answer.
   *
   * @see Faults#resetAfter(ResponseAnswer)
   */
  public static Fault resetAfter(ResponseAnswer answer) {
    return Faults.resetAfter(answer);
  }

  /**
   * The body ends in the middle, before its content length.
   *
   * @see Faults#truncated(ResponseAnswer)
   */
  public static Fault truncated(ResponseAnswer answer) {
    return Faults.truncated(answer);
  }

  /**
   * The body ends after this many bytes, before its content length.
   *
   * @see Faults#truncated(ResponseAnswer, int)
   */
  public static Fault truncated(ResponseAnswer answer, int bytes) {
    return Faults.truncated(answer, bytes);
  }

  /**
   * The chunked body has a malformed chunk in the middle.
   *
   * @see Faults#malformedChunks(ResponseAnswer)
   */
  public static Fault malformedChunks(ResponseAnswer answer) {
    return Faults.malformedChunks(answer);
  }

  /**
   * A response with headers of one MiB, more than any client accepts by default.
   *
   * @see Faults#headersTooLarge()
   */
  public static ResponseAnswer headersTooLarge() {
    return Faults.headersTooLarge();
  }

  /**
   * A response with headers of about this many bytes.
   *
   * @see Faults#headersTooLarge(int)
   */
  public static ResponseAnswer headersTooLarge(int bytes) {
    return Faults.headersTooLarge(bytes);
  }

  /**
   * The answer with the content type {@code text/html}, whatever its content is.
   *
   * @see Faults#wrongContentType(ResponseAnswer)
   */
  public static ResponseAnswer wrongContentType(ResponseAnswer answer) {
    return Faults.wrongContentType(answer);
  }

  /**
   * The answer with its text cut in the middle, so that it is not valid JSON; otherwise unchanged.
   *
   * @see Faults#invalidJson(ResponseAnswer)
   */
  public static ResponseAnswer invalidJson(ResponseAnswer answer) {
    return Faults.invalidJson(answer);
  }

  /**
   * The answer labelled as gzip, with a body that is not gzip.
   *
   * @see Faults#badGzip(ResponseAnswer)
   */
  public static ResponseAnswer badGzip(ResponseAnswer answer) {
    return Faults.badGzip(answer);
  }

  /**
   * The answer with its text in UTF-16, though its content type says UTF-8.
   *
   * @see Faults#wrongCharset(ResponseAnswer)
   */
  public static ResponseAnswer wrongCharset(ResponseAnswer answer) {
    return Faults.wrongCharset(answer);
  }
}
