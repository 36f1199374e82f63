package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.match.IndexKey;
import dev.cachette.internal.match.MatchAccess;
import dev.cachette.internal.match.Verdict;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/** Gives the implementation what is hidden from users. Created by {@link MatchAccess}. */
final class MatchInternals extends MatchAccess {

  private MatchInternals() {}

  @Override
  public Received received(Request request) {
    return Received.of(request);
  }

  @Override
  public Received with(Received received, Map<String, String> variables) {
    return received.with(variables);
  }

  @Override
  public Content content(Received received) {
    return received.content();
  }

  @Override
  public String origin(Received received) {
    return received.origin();
  }

  @Override
  public String normalPath(Received received) {
    return received.normalPath();
  }

  @Override
  public String key(Received received) {
    return received.key();
  }

  @Override
  public Comparator<RequestPattern> mostSpecificFirst() {
    return RequestPattern.MOST_SPECIFIC_FIRST;
  }

  @Override
  public Optional<Map<String, String>> match(RequestPattern pattern, Received received) {
    return pattern.match(received);
  }

  @Override
  public Verdict examine(RequestPattern pattern, Request request) {
    return pattern.examine(request);
  }

  @Override
  public boolean names(RequestPattern pattern, String host, int port) {
    return pattern.names(host, port);
  }

  @Override
  public boolean mayReach(RequestPattern pattern, String host, OptionalInt port) {
    return pattern.mayReach(host, port);
  }

  @Override
  public boolean isFor(RequestPattern pattern, String host, OptionalInt port) {
    return pattern.isFor(host, port);
  }

  @Override
  public Optional<String> host(RequestPattern pattern) {
    return pattern.host();
  }

  @Override
  public boolean isPlain(RequestPattern pattern) {
    return pattern.isPlain();
  }

  @Override
  public boolean covers(RequestPattern pattern, RequestPattern other) {
    return pattern.covers(other);
  }

  @Override
  public Set<String> variables(RequestPattern pattern) {
    return pattern.variables();
  }

  @Override
  public String site(RequestPattern pattern) {
    return pattern.site();
  }

  @Override
  public IndexKey indexKey(RequestPattern pattern) {
    return pattern.indexKey();
  }

  @Override
  public Optional<JsonNode> written(Condition condition) {
    return StubForm.of(condition);
  }
}
