// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.http.Request;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.limit.TimeLimitExceeded;
import dev.cachette.internal.match.IndexKey;
import dev.cachette.internal.match.Origin;
import dev.cachette.internal.match.ParsedRequest;
import dev.cachette.internal.match.RequestLine;
import dev.cachette.internal.match.RequestLineParser;
import dev.cachette.internal.match.Specificity;
import dev.cachette.internal.match.Verdict;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Which requests are meant, as a value that stubs and assertions can share.
 *
 * <p>A pattern is written as a request line: a method, a space, and a URL template.
 *
 * <ul>
 *   <li>{@code GET https://tides.example/v1/stations/{station}/tides}: scheme, host and port must
 *       be the same; a variable (RFC 6570) stands for one path segment or a part of one.
 *   <li>{@code GET https://tides.example/{+rest}}: a variable with a plus sign stands for anything,
 *       slashes included, and also for nothing.
 *   <li>{@code POST /v1/bookings}: a path alone is meant for any host, scheme and port.
 *   <li>{@code GET https://tides.example/v1/tides?day={day}&unit=m}: these parameters must be
 *       there, in any order, the literal ones with this value. A pattern without a query matches
 *       whatever the query is.
 * </ul>
 *
 * The method can be several ({@code GET,HEAD}) or any ({@code *}). A label of the host can be a
 * variable or a star ({@code https://*.tides.example}), a host that is a star alone stands for any.
 * Escapes that mean the same are the same ({@code %7e} and {@code ~}); everything else in a path is
 * compared exactly, a slash at the end included. The method is case-sensitive.
 *
 * <p>Further conditions narrow it: {@code RequestPattern.of("POST
 * /v1/bookings").json("$.vessel.name", is("Kittiwake"))}.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class RequestPattern implements RequestConditions<RequestPattern> {

  static final Comparator<RequestPattern> MOST_SPECIFIC_FIRST =
      Comparator.comparing((RequestPattern pattern) -> pattern.specificity).reversed();

  /** How close each part of a request line must come for the rest to be of interest. */
  private static final double CLOSE = 0.7;

  /** The size of a body, in bytes, from which reading it takes time. */
  private static final int LARGE = 16 * 1024;

  private static final Optional<Map<String, String>> NO_VARIABLES = Optional.of(Map.of());

  private final RequestLine line;
  private final List<Condition> conditions;
  private final Specificity specificity;

  /** Where nothing but one method, origin and path is asked for: all of it in one text. */
  private final @Nullable String exact;

  /** True if matching a request that is not large certainly takes little time. */
  private final boolean quick;

  /** The same, whatever the conditions. */
  private final @Nullable String literal;

  /** Made when they are asked for; two threads may make the same. */
  private @Nullable Set<Object> identities;

  private RequestPattern(RequestLine line, List<Condition> conditions) {
    this.line = line;
    this.conditions = List.copyOf(conditions);
    this.specificity = line.specificity().and(conditions.size());
    this.quick = line.isQuick() && this.conditions.stream().allMatch(RequestPattern::isQuick);
    this.literal = line.exact().orElse(null);
    this.exact = specificity.conditions() == 0 ? literal : null;
  }

  /**
   * Returns the pattern that a request line describes.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place and says
   *     how to fix it
   */
  public static RequestPattern of(String requestLine) {
    return new RequestPattern(RequestLineParser.parse(requestLine), List.of());
  }

  /**
   * Returns this pattern with further conditions.
   *
   * @throws IllegalArgumentException if one is null, or is on a variable that the line does not
   *     have
   */
  @Override
  public RequestPattern where(Condition... more) {
    if (Arguments.given("where(conditions)", more).length == 0) {
      return this;
    }
    List<Condition> all = new ArrayList<>(conditions);
    for (Condition condition : more) {
      requireVariable(Arguments.given("where(conditions)", condition));
      all.add(condition);
    }
    return new RequestPattern(line, all);
  }

  /** Returns the variables, decoded, if the request matches; empty if it does not. */
  public Optional<Map<String, String>> match(Request request) {
    return match(Received.of(request));
  }

  Optional<Map<String, String>> match(Received received) {
    if (exact != null) {
      return exact.equals(received.parsed().key()) ? NO_VARIABLES : Optional.empty();
    }
    Optional<Map<String, String>> variables = line.match(received.parsed());
    if (variables.isEmpty() || conditions.isEmpty()) {
      return variables;
    }
    Received seen = received.with(variables.get());
    // Asked for every call, of each candidate: a loop, not a stream.
    for (Condition condition : conditions) {
      TimeLimit.testingCondition(condition::description);
      if (!condition.holds(seen)) {
        return Optional.empty();
      }
    }
    return variables;
  }

  /** Returns the condition that a request alone does not meet, if that is on its credentials. */
  Optional<Authorization> onlyMissed(Received received) {
    if (conditions.stream().noneMatch(Authorization.class::isInstance)) {
      return Optional.empty();
    }
    Optional<Map<String, String>> variables = line.match(received.parsed());
    if (variables.isEmpty()) {
      return Optional.empty();
    }
    Received seen = received.with(variables.get());
    List<Condition> missed = conditions.stream().filter(it -> !it.holds(seen)).toList();
    return missed.size() == 1 && missed.get(0) instanceof Authorization credentials
        ? Optional.of(credentials)
        : Optional.empty();
  }

  /** Returns true if matching this request certainly takes little time. */
  boolean isQuick(Received received) {
    return quick && received.request().body().size() <= LARGE;
  }

  private static boolean isQuick(Condition condition) {
    return condition instanceof ValueOfRequest value
        ? value.condition().isQuick()
        : condition instanceof BasicCredentials
            || condition instanceof BuiltInCondition builtIn && builtIn.isQuick();
  }

  /** Returns roughly how much method and URL have in common with a request; much is more. */
  int likeness(ParsedRequest request) {
    return line.likeness(request);
  }

  /** Returns how each condition fares with the request, whether it matches or not. */
  Verdict examine(Received received) {
    return examine(received, line.examine(received.request()), condition -> true);
  }

  /**
   * As {@link #examine}, but only with the conditions on the head of the request, unless the URL
   * comes close: reading a body for the sake of another call's stub would take time for nothing.
   */
  Verdict examineIfClose(Received received) {
    List<Check> checks = line.examine(received.request());
    boolean close =
        checks.stream()
            .allMatch(check -> check.nearness() >= CLOSE || check.condition().equals("method"));
    return examine(received, checks, condition -> close || isOnHead(condition));
  }

  private Verdict examine(Received received, List<Check> checks, Predicate<Condition> wanted) {
    Optional<Map<String, String>> variables = line.match(received.parsed());
    Received seen = received.with(variables.orElse(Map.of()));
    List<Check> tested = new ArrayList<>();
    int untested = 0;
    for (Condition condition : conditions) {
      if (!wanted.test(condition)) {
        untested++;
      } else if (variables.isPresent() || !isOnVariable(condition)) {
        // Without a line that matches there are no variables to speak of.
        tested.add(check(condition, seen));
      }
    }
    return new Verdict(checks, tested, untested);
  }

  private static boolean isOnHead(Condition condition) {
    return condition instanceof ValueOfRequest || condition instanceof BasicCredentials;
  }

  /**
   * Checks a condition. A predicate that throws an exception does not match, and the check reports
   * the exception: explanations must not fail.
   */
  private static Check check(Condition condition, Received seen) {
    try {
      TimeLimit.testingCondition(condition::description);
      return condition.check(seen);
    } catch (TimeLimitExceeded exceeded) {
      return Check.missed(
          "condition", 0, Difference.of(condition.description(), exceeded.outcome()));
    } catch (RuntimeException | StackOverflowError thrown) {
      return Check.missed(
          "condition", 0, Difference.of(condition.description(), "threw " + thrown));
    }
  }

  private static boolean isOnVariable(Condition condition) {
    return condition instanceof ValueOfRequest value && value.kind().equals("path");
  }

  /** Returns the request line as it was written, without further conditions. */
  public String line() {
    return line.text();
  }

  /** Returns what is asked for beyond the request line. */
  public List<Condition> conditions() {
    return conditions;
  }

  /**
   * Returns true if the pattern names this very host and port, so that calls to it are expected.
   */
  boolean names(String host, int port) {
    return line.origin().filter(origin -> origin.isAt(host, port)).isPresent();
  }

  /**
   * Returns true if a call to this host can match the pattern, whatever it asks for.
   *
   * @param port the port it goes to, or none where that is not known yet
   */
  boolean mayReach(String host, OptionalInt port) {
    return line.origin().map(origin -> origin.mayBeAt(host, port)).orElse(true);
  }

  /** As {@link #mayReach}, and the pattern says something of the host. */
  boolean isFor(String host, OptionalInt port) {
    return line.origin().isPresent() && mayReach(host, port);
  }

  /** Returns the host, if the pattern names one and not several. */
  Optional<String> host() {
    return line.origin().flatMap(Origin::literalHost);
  }

  /** Returns true if only calls over plain HTTP can fit, which meet no TLS. */
  boolean isPlain() {
    return line.origin().filter(origin -> origin.scheme().equals("http")).isPresent();
  }

  /**
   * Returns true if every request that matches the other pattern matches this one, as far as can be
   * told from how they are written.
   */
  boolean covers(RequestPattern other) {
    if (exact != null) {
      // The usual case, which must be cheap where thousands are compared with thousands.
      return exact.equals(other.literal);
    }
    return line.covers(other.line) && other.identities().containsAll(identities());
  }

  /** Origin and form of the path in one text: patterns that cover one another share it. */
  Set<String> variables() {
    return line.variables();
  }

  String site() {
    return line.site();
  }

  IndexKey indexKey() {
    return line.indexKey();
  }

  /** Returns what tells conditions apart: messages mask what is secret, this does not. */
  private Set<Object> identities() {
    Set<Object> known = identities;
    if (known == null) {
      known = conditions.stream().map(RequestPattern::identity).collect(Collectors.toSet());
      identities = known;
    }
    return known;
  }

  private static Object identity(Condition condition) {
    if (condition instanceof ValueOfRequest value) {
      return value.kind() + " " + value.name() + ": " + value.condition();
    }
    return condition instanceof BodyCondition ? condition.description() : condition;
  }

  private List<String> descriptions() {
    return conditions.stream().map(Condition::description).toList();
  }

  private void requireVariable(Condition condition) {
    if (isOnVariable(condition)
        && condition instanceof ValueOfRequest value
        && !line.variables().contains(value.name())) {
      throw Refusals.argument(
          String.format(
              "Unknown variable \"%s\": the request line \"%s\" has %s.\n"
                  + "Fix: use one of them, or write {%s} into the request line.",
              value.name(),
              line.text(),
              line.variables().isEmpty() ? "none" : line.variables(),
              value.name()));
    }
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof RequestPattern pattern
        && line.text().equals(pattern.line.text())
        && identities().equals(pattern.identities());
  }

  @Override
  public int hashCode() {
    return line.text().hashCode();
  }

  /** Returns the request line as it was written, and the conditions in words. */
  @Override
  public String toString() {
    return conditions.isEmpty()
        ? line.text()
        : line.text() + " where " + String.join("; ", descriptions());
  }
}
