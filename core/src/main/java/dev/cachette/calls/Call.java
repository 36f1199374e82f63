// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Fault;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.result.ClosestStub;
import dev.cachette.result.StubReference;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One request that arrived, with the answer it got, once it has one. Safe to share between threads.
 */
public interface Call {

  /** How far a call has got. */
  enum State {
    /** The request has arrived. */
    ARRIVED("arrived"),
    /** A function computes the answer, or the real service is called. */
    COMPUTING("being computed"),
    /** A gate holds the answer back. */
    HELD("held by a gate"),
    /** The answer is delayed, or its body is being written; or it is a fault that never ends. */
    SENDING("being sent"),
    /** The answer has been written completely. */
    ANSWERED("answered");

    private final String words;

    State(String words) {
      this.words = words;
    }

    /** Returns the state in words: {@code held by a gate}. */
    @Override
    public String toString() {
      return words;
    }
  }

  /**
   * Returns its number, counted from 1 in the order of arrival, by which it can be found again.
   * Numbers of a session are not used twice.
   */
  long number();

  /** Returns how far it has got. */
  State state();

  /** Returns the request as it arrived. */
  Request request();

  /**
   * Returns the response; for a stream, status and headers only.
   *
   * @throws IllegalStateException if the answer was a fault, see {@link #fault}, or if there is
   *     none yet, see {@link #state}
   */
  Response response();

  /** Returns the fault that the stub answered with; empty for a response. */
  Optional<Fault> fault();

  /**
   * Returns why the call failed the test while it was answered: a failed check of its stub, a
   * function that threw, or a violation of the API description. Its response has status 500 then,
   * or 400 for a request that violates the API description. Also returns why a real service did not
   * answer, if the response says so with status 502. Empty if it did not fail, and for an
   * unexpected call.
   */
  Optional<String> failure();

  /**
   * Returns who made it: the thread, and the test, if that can be told. Nothing is known of calls
   * from other programs.
   */
  MadeBy madeBy();

  /** Returns when it arrived, by the clock of the session. */
  Instant arrivedAt();

  /**
   * Returns how long its answer took, from the arrival of the request until the answer was written
   * completely, in real time; empty while it is not.
   */
  Optional<Duration> duration();

  /** Returns when it reached the stages of its answer. */
  CallTimes times();

  /** Returns the HTTP version of the connection: {@code HTTP/1.1} or {@code HTTP/2}. */
  String protocol();

  /**
   * Returns the number of the connection, counted from 1: calls with the same number shared a
   * connection.
   */
  int connection();

  /**
   * Returns the certificate that the client identified itself with (mutual TLS, RFC 8446 section
   * 4.4.2), whoever issued it; empty if it has none. Clients are asked only if {@code
   * Settings.requestClientCertificates(true)} says so.
   */
  Optional<X509Certificate> clientCertificate();

  /** Returns the fault in words, or the status of the response, or that there is none yet. */
  String outcome();

  /** Returns the stub that answered; empty for an unexpected call. */
  Optional<StubReference> stub();

  /**
   * Returns the stubs that came closest to answering an unexpected call, the closest first, with
   * each of their conditions; at most three, and none for a call that was answered.
   */
  List<ClosestStub> closestStubs();

  /** Returns the values of the variables in the request line, by name, percent-decoded. */
  Map<String, String> variables();

  /**
   * Returns the body deserialised by Jackson, with the mapper of the settings.
   *
   * @throws org.opentest4j.AssertionFailedError if the body cannot be read as this type; the
   *     message shows it
   */
  <T> T as(Class<T> type);

  /**
   * Returns the body deserialised by Jackson, for a generic type: {@code new
   * TypeReference<List<Booking>>() {}}.
   *
   * @throws org.opentest4j.AssertionFailedError if the body cannot be read as this type; the
   *     message shows it
   */
  <T> T as(TypeReference<T> type);

  /**
   * Returns the body read as JSON, whatever its content type.
   *
   * @throws org.opentest4j.AssertionFailedError if it is not valid JSON; the message gives line and
   *     column
   */
  JsonNode json();

  /** Returns true if the complete response was written. */
  default boolean isDelivered() {
    return state() == State.ANSWERED;
  }

  /**
   * Returns the value at one place in the JSON of the body.
   *
   * @param path a JSONPath (RFC 9535) such as {@code $.vessel.name}, or a JSON Pointer (RFC 6901)
   * @return the value; an array of values if the path can match several
   * @throws org.opentest4j.AssertionFailedError if the body is not valid JSON, or has nothing there
   * @throws IllegalArgumentException if the path is malformed; the message marks the place
   */
  default JsonNode json(String path) {
    return JsonLookup.find(this, path);
  }

  /** Returns the method, as sent. */
  default String method() {
    return request().method();
  }

  /**
   * Returns the absolute URI of the call; characters that {@link URI} does not accept are
   * percent-encoded.
   */
  default URI uri() {
    return request().uri().toJavaUri();
  }

  /**
   * Returns the value of a variable of the request line.
   *
   * @throws IllegalArgumentException if the request line has no such variable
   */
  default String variable(String name) {
    String value = variables().get(name);
    if (value == null) {
      throw Refusals.argument(
          String.format(
              "Unknown variable \"%s\": the request line that this call matches has %s.",
              name, variables().isEmpty() ? "none" : variables().keySet()));
    }
    return value;
  }

  /** Returns the parameters of the query, decoded. */
  default Query query() {
    return request().uri().query();
  }

  /** Returns the first value of a query parameter, decoded. */
  default Optional<String> query(String name) {
    return query().first(name);
  }

  /** Returns the header fields, in order of arrival. */
  default Headers headers() {
    return request().headers();
  }

  /** Returns the first value of a header; header names are not case-sensitive. */
  default Optional<String> header(String name) {
    return headers().first(name);
  }

  /** Returns all values of a header, in order. */
  default List<String> headers(String name) {
    return headers().all(name);
  }

  /** Returns the body as bytes; empty if there was none. */
  default Body body() {
    return request().body();
  }

  /**
   * Returns the body as text, decoded from its content encoding, in the charset of its type or
   * UTF-8.
   */
  default String text() {
    return request().text();
  }
}
