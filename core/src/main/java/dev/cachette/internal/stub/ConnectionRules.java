package dev.cachette.internal.stub;

import dev.cachette.answer.Trouble;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.cassette.InPlay;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * What the scopes say of a connection, when there is no request yet: whether it is let through, and
 * which trouble it meets. A view of {@link Scopes}, guarded by its lock.
 */
public final class ConnectionRules {

  private final Scopes scopes;

  /** Whether there ever was a stub with a trouble that comes before there is a request. */
  private volatile boolean early;

  /** Whether anything was ever let through. */
  private volatile boolean lettingThrough;

  ConnectionRules(Scopes scopes) {
    this.scopes = scopes;
  }

  void noteEarlyTrouble() {
    early = true;
  }

  void noteLetThrough() {
    lettingThrough = true;
  }

  boolean isLettingThrough() {
    return lettingThrough;
  }

  /**
   * Whether connections to a host are let through; not where a stub is for it, whose calls must
   * come here first.
   *
   * @param port the port, or none where it is not known yet
   */
  public boolean letsThrough(String host, OptionalInt port) {
    return lettingThrough
        && scopes.ask(
            all ->
                all.stream()
                        .flatMap(scope -> scope.through().stream())
                        .anyMatch(what -> what.isFor(host, port))
                    && rules(all).noneMatch(rule -> rule.pattern().isFor(host, port)));
  }

  /**
   * The trouble that the next look-up, connection or handshake for a host meets, if that is the
   * turn of a stub's answer; its turn is over then.
   *
   * @param port the port, or none where it is not known yet
   */
  public Optional<Trouble> meet(Trouble.Stage stage, String host, OptionalInt port) {
    if (!early) {
      return Optional.empty();
    }
    Optional<Trouble> stubbed =
        scopes.ask(
            all -> {
              Instant now = scopes.now();
              return next(all, now, rule -> rule.pattern().mayReach(host, port))
                  .filter(rule -> rule.earlyTrouble(now).orElseThrow().kind().stage() == stage)
                  .flatMap(rule -> rule.take(() -> now))
                  .map(Trouble.class::cast);
            });
    return stubbed.or(() -> Cassettes.meet(scopes.cassettes(), stage, host, port));
  }

  /** Tries to connect to where a caller wants to. */
  @FunctionalInterface
  public interface Probe {

    /** The failure; empty if there is none. */
    Optional<Exchange> tryTo(Trouble.Stage stage, String host, OptionalInt port);
  }

  /**
   * The trouble that a caller meets who connects to a host whose calls are being recorded, and to
   * which no stub is for: what the real network has for it. It is recorded, too.
   *
   * @param probe asks the real network
   */
  public Optional<Trouble> record(Trouble.Stage stage, String host, OptionalInt port, Probe probe) {
    Optional<InPlay> recording =
        scopes.cassettes().stream()
            .filter(it -> it.mustAsk(host) && it.isFor(host, port))
            .findFirst()
            .filter(it -> !isStubbed(host, port));
    return recording.flatMap(
        cassette ->
            probe
                .tryTo(stage, host, port)
                .map(
                    failed -> {
                      cassette.keep(failed);
                      return Cassettes.early(failed.trouble().orElseThrow());
                    }));
  }

  private boolean isStubbed(String host, OptionalInt port) {
    return scopes.ask(all -> rules(all).anyMatch(rule -> rule.pattern().isFor(host, port)));
  }

  /** Whether the next call to a host and port meets trouble before there is a request. */
  public boolean meetsEarly(String host, int port) {
    return early
        && scopes.ask(
            all ->
                next(all, scopes.now(), rule -> rule.pattern().mayReach(host, OptionalInt.of(port)))
                    .isPresent());
  }

  /** Whether there is a stub with such a trouble at all. */
  public boolean haveEarlyTroubles() {
    return early;
  }

  /** Whether a stub in force is for this host, by name or by a star, and this port. */
  public boolean expectHttp(String host, int port) {
    return isStubbed(host, OptionalInt.of(port));
  }

  /** Whether a stub in force, a cassette in play or a description names this host and port. */
  public boolean nameDestination(String host, int port) {
    return scopes.isDescribed(host, port)
        || scopes.ask(all -> rules(all).anyMatch(rule -> rule.pattern().names(host, port)))
        || scopes.cassettes().stream().anyMatch(it -> it.names(host, port));
  }

  boolean isEarlyNext(StubRule rule) {
    return early && scopes.ask(all -> rule.earlyTrouble(scopes.now()).isPresent());
  }

  private static Stream<StubRule> rules(List<StubScope> all) {
    return all.stream().flatMap(scope -> scope.rules().stream());
  }

  private static Optional<StubRule> next(
      List<StubScope> all, Instant now, Predicate<StubRule> wanted) {
    return all.stream()
        .flatMap(scope -> scope.early().stream())
        .filter(wanted)
        .filter(rule -> rule.earlyTrouble(now).isPresent())
        .findFirst();
  }
}
