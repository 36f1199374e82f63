// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.answer.Fault;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * One request, and its result: a response or a fault. Files from other tools may contain requests
 * without a result; these are never replayed.
 *
 * @param started when the request was sent
 * @param time the duration until the complete response had arrived
 * @param protocol the HTTP version: {@code HTTP/1.1} or {@code HTTP/2}
 * @param request the request
 * @param response the response, with its body in its content encoding; empty if there was none
 * @param fault the fault that happened instead; empty if there was none
 * @param pieces the parts in which the body arrived, if it was streamed; else empty
 * @param tokens the claims, as JSON, of signed tokens that were redacted, by the names of their
 *     placeholders; without those that differ from login to login
 */
public record Exchange(
    Instant started,
    Duration time,
    String protocol,
    Request request,
    Optional<Response> response,
    Optional<Fault.Kind> fault,
    List<Piece> pieces,
    Map<String, String> tokens) {

  /**
   * A part of a streamed body.
   *
   * @param at when it arrived, from the beginning of the exchange
   * @param size its number of bytes
   */
  public record Piece(Duration at, int size) {}

  /** Copies the pieces and tokens. */
  public Exchange {
    pieces = List.copyOf(pieces);
    tokens = Collections.unmodifiableMap(new TreeMap<>(tokens));
  }

  /** Returns an exchange with a response. */
  public static Exchange answered(
      Instant started, Duration time, String protocol, Request request, Response response) {
    return new Exchange(
        started,
        time,
        protocol,
        request,
        Optional.of(response),
        Optional.empty(),
        List.of(),
        Map.of());
  }

  /** Returns an exchange with a fault. */
  public static Exchange failed(Instant started, Duration time, Request request, Fault.Kind fault) {
    return new Exchange(
        started,
        time,
        "HTTP/1.1",
        request,
        Optional.empty(),
        Optional.of(fault),
        List.of(),
        Map.of());
  }

  /** Returns this exchange with another request. */
  public Exchange with(Request other) {
    return new Exchange(started, time, protocol, other, response, fault, pieces, tokens);
  }

  /** Returns this exchange with another response, which arrives in as many pieces. */
  public Exchange with(Response other) {
    return new Exchange(
        started, time, protocol, request, Optional.of(other), Optional.empty(), pieces, tokens);
  }

  /** Returns this exchange with a response body that arrived in pieces. */
  public Exchange inPieces(List<Piece> other) {
    return new Exchange(started, time, protocol, request, response, fault, other, tokens);
  }

  /** Returns this exchange with the claims of other tokens. */
  public Exchange withTokens(Map<String, String> other) {
    return new Exchange(started, time, protocol, request, response, fault, pieces, other);
  }

  /** Returns true if it can be replayed. */
  public boolean isAnswered() {
    return response.isPresent() || fault.isPresent();
  }

  /** Returns the result in a few words: the status, or the fault. */
  public String outcome() {
    return response
        .map(it -> Integer.toString(it.status()))
        .or(() -> fault.map(Exchange::words))
        .orElse("no answer");
  }

  private static String words(Fault.Kind kind) {
    return kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** Returns the request line and the outcome. */
  @Override
  public String toString() {
    return request + "  ->  " + outcome();
  }
}
