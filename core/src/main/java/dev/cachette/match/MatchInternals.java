// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Request;
import dev.cachette.internal.match.IndexKey;
import dev.cachette.internal.match.ParsedRequest;
import dev.cachette.internal.match.Verdict;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/**
 * Members of this package for the implementation. Not public API: may change in any release.
 *
 * @hidden
 */
public final class MatchInternals {

  private MatchInternals() {}

  /** Wraps a request that has not been matched with a request line yet. */
  public static Received received(Request request) {
    return Received.of(request);
  }

  /** Returns a request with variables; its content is not parsed again. */
  public static Received with(Received received, Map<String, String> variables) {
    return received.with(variables);
  }

  /** Returns a request, parsed. */
  public static ParsedRequest parsed(Received received) {
    return received.parsed();
  }

  /**
   * Sorts the more specific pattern first: one for an origin before one with a star or variable in
   * its host before one for any host; then, segment by segment from the left, a literal before a
   * segment with a variable in it before a variable before {@code {+rest}}; then one method before
   * several before any; then the one with more conditions, query parameters included.
   */
  public static Comparator<RequestPattern> mostSpecificFirst() {
    return RequestPattern.MOST_SPECIFIC_FIRST;
  }

  /** Returns the variables, decoded, if the request matches; empty if it does not. */
  public static Optional<Map<String, String>> match(RequestPattern pattern, Received received) {
    return pattern.match(received);
  }

  /** Returns the condition that a request alone does not meet, if that is on its credentials. */
  public static Optional<Authorization> onlyMissed(RequestPattern pattern, Received received) {
    return pattern.onlyMissed(received);
  }

  /** Returns true if matching certainly takes little time. */
  public static boolean isQuick(RequestPattern pattern, Received received) {
    return pattern.isQuick(received);
  }

  /** Returns roughly how much method and URL of a request have in common with a pattern. */
  public static int likeness(RequestPattern pattern, Received received) {
    return pattern.likeness(received.parsed());
  }

  /** Tests every condition, whether the request matches or not. */
  public static Verdict examine(RequestPattern pattern, Request request) {
    return pattern.examine(Received.of(request));
  }

  /** Tests method and URL, and if the URL comes close, every condition. */
  public static Verdict examineIfClose(RequestPattern pattern, Received received) {
    return pattern.examineIfClose(received);
  }

  /** Returns true if the pattern is for exactly this host and port, so that calls are expected. */
  public static boolean names(RequestPattern pattern, String host, int port) {
    return pattern.names(host, port);
  }

  /**
   * Returns true if a call to this host can match the pattern.
   *
   * @param port its port, or none if it is not known yet
   */
  public static boolean mayReach(RequestPattern pattern, String host, OptionalInt port) {
    return pattern.mayReach(host, port);
  }

  /** As {@link #mayReach}, and the pattern has a host. */
  public static boolean isFor(RequestPattern pattern, String host, OptionalInt port) {
    return pattern.isFor(host, port);
  }

  /** Returns the host, if the pattern has exactly one. */
  public static Optional<String> host(RequestPattern pattern) {
    return pattern.host();
  }

  /** Returns true if only calls over plain HTTP can match, without TLS. */
  public static boolean isPlain(RequestPattern pattern) {
    return pattern.isPlain();
  }

  /** Returns true if every request that matches the other pattern certainly matches the first. */
  public static boolean covers(RequestPattern pattern, RequestPattern other) {
    return pattern.covers(other);
  }

  /** Returns the names of the variables of the request line. */
  public static Set<String> variables(RequestPattern pattern) {
    return pattern.variables();
  }

  /** Returns origin and form of the path in one key: patterns that cover one another share it. */
  public static String site(RequestPattern pattern) {
    return pattern.site();
  }

  /** Returns the place of the pattern in an index. */
  public static IndexKey indexKey(RequestPattern pattern) {
    return pattern.indexKey();
  }

  /** Returns the stub-file form of a condition; empty if it contains user code. */
  public static Optional<JsonNode> written(Condition condition) {
    return StubForm.of(condition);
  }
}
