package dev.cachette.internal.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Request;
import dev.cachette.internal.access.HiddenMembers;
import dev.cachette.internal.content.Content;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/**
 * Gives the implementation members of the types in {@code dev.cachette.match} that users do not
 * see. The only subclass is in that package.
 */
public abstract class MatchAccess {

  private static final class Holder {
    static final MatchAccess ACCESS =
        HiddenMembers.of(MatchAccess.class, "dev.cachette.match.MatchInternals");
  }

  /** For the subclass. */
  protected MatchAccess() {}

  /** Returns the access. */
  public static MatchAccess access() {
    return Holder.ACCESS;
  }

  /** Wraps a request that has not been matched with a request line yet. */
  public abstract Received received(Request request);

  /** Returns a request with variables; its content is not parsed again. */
  public abstract Received with(Received received, Map<String, String> variables);

  /** Returns the content of a request, decoded. */
  public abstract Content content(Received received);

  /** Returns scheme, host and port of a request. */
  public abstract String origin(Received received);

  /** Returns the path of a request in normal form (RFC 3986 section 6.2.2). */
  public abstract String normalPath(Received received);

  /** Returns the key of a request, see {@link RequestKey}. */
  public abstract String key(Received received);

  /**
   * Sorts the more specific pattern first: one for an origin before one with a star or variable in
   * its host before one for any host; then, segment by segment from the left, a literal before a
   * segment with a variable in it before a variable before {@code {+rest}}; then one method before
   * several before any; then the one with more conditions, query parameters included.
   */
  public abstract Comparator<RequestPattern> mostSpecificFirst();

  /** Returns the variables, decoded, if the request matches; empty if it does not. */
  public abstract Optional<Map<String, String>> match(RequestPattern pattern, Received received);

  /** Tests every condition, whether the request matches or not. */
  public abstract Verdict examine(RequestPattern pattern, Request request);

  /** Returns true if the pattern is for exactly this host and port, so that calls are expected. */
  public abstract boolean names(RequestPattern pattern, String host, int port);

  /**
   * Returns true if a call to this host can match the pattern.
   *
   * @param port its port, or none if it is not known yet
   */
  public abstract boolean mayReach(RequestPattern pattern, String host, OptionalInt port);

  /** As {@link #mayReach}, and the pattern has a host. */
  public abstract boolean isFor(RequestPattern pattern, String host, OptionalInt port);

  /** Returns the host, if the pattern has exactly one. */
  public abstract Optional<String> host(RequestPattern pattern);

  /** Returns true if only calls over plain HTTP can match, without TLS. */
  public abstract boolean isPlain(RequestPattern pattern);

  /** Returns true if every request that matches the other pattern certainly matches the first. */
  public abstract boolean covers(RequestPattern pattern, RequestPattern other);

  /** Returns the names of the variables of the request line. */
  public abstract Set<String> variables(RequestPattern pattern);

  /** Returns origin and form of the path in one key: patterns that cover one another share it. */
  public abstract String site(RequestPattern pattern);

  /** Returns the place of the pattern in an index. */
  public abstract IndexKey indexKey(RequestPattern pattern);

  /** Returns the stub-file form of a condition; empty if it contains user code. */
  public abstract Optional<JsonNode> written(Condition condition);
}
