package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.calls.Calls;
import dev.cachette.calls.Log;
import dev.cachette.internal.agent.Destinations;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.resource.Resources;
import dev.cachette.internal.stub.ContentReader;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.Place;
import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.stub.ScopeReport;
import dev.cachette.internal.stub.ScopeSettings;
import dev.cachette.internal.stub.Scopes;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.internal.stub.StubScope;
import dev.cachette.internal.tls.ServerTls;
import dev.cachette.internal.wire.WireServer;
import dev.cachette.match.RequestPattern;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;

/**
 * Intercepts the outgoing HTTP and HTTPS calls of this JVM, answers them from stubs, and knows
 * which were made.
 *
 * <pre>{@code
 * try (Cachette net = Cachette.open()) {
 *   net.stub("GET https://tides.example/v1/stations/{station}/tides").answer(json(tides));
 *
 *   new HarbourDesk().plan(kittiwake);       // calls https://tides.example as in production
 *
 *   net.calls().assertCount(1);
 * }
 * }</pre>
 *
 * <p>While it is open, no connection that is made through the JDK leaves this machine. A connection
 * to this machine itself (a loopback address, {@code localhost}, an own network address) is left
 * alone, unless a stub names its host and port. Where several stubs fit a call, the inner scope
 * wins, then the more specific request, then the later declaration. A call that no stub answers
 * gets status 501 with the reason as text, is logged as a warning, and makes {@link #close} fail.
 *
 * <p>One Cachette serves the whole JVM, so only one can be open at a time. All methods may be
 * called from any thread.
 */
public final class Cachette implements AutoCloseable {

  private final Settings settings;
  private final String name;
  private final Scopes scopes;
  private final Log log;
  private final ContentReader resources = new Resources();
  private final ServerTls tls = new ServerTls();
  private final WireServer server;
  private final Interception interception;
  private volatile @Nullable Place closed;

  private Cachette(Settings settings, Place opened) {
    this.settings = settings;
    this.name = settings.name().map(given -> "of " + given).orElse("opened at " + opened);
    this.scopes =
        new Scopes(
            new ScopeSettings(
                settings.clock(), settings.seed(), settings.maxCalls(), settings.maxCallBodies()));
    this.log = new ScopeLog(scopes);
    Responder responder = new Responder(scopes, settings::mapper, resources, Cachette::warn);
    this.server = new WireServer(responder, tls, settings.maxRequestBody());
    try {
      this.interception = Interception.begin(this, destinations(), tls);
    } catch (RuntimeException refused) {
      server.close();
      throw refused;
    }
  }

  /**
   * Opens with {@link Settings#defaults()}.
   *
   * @see #open(Settings)
   */
  public static Cachette open() {
    return new Cachette(Settings.defaults(), Caller.place());
  }

  /**
   * Begins to intercept, for all clients of this JVM, made before or after.
   *
   * @throws IllegalArgumentException if the settings are null
   * @throws IllegalStateException if another Cachette is open; the message says since where. Or if
   *     this JVM does not let itself be instrumented; the message says why and what to do
   */
  public static Cachette open(Settings settings) {
    if (settings == null) {
      throw new IllegalArgumentException(
          "The settings must not be null. Mend: Settings.defaults().");
    }
    return new Cachette(settings, Caller.place());
  }

  /**
   * Begins a stub for the requests that fit a request line; see {@link RequestPattern} for how one
   * is written. It is in force once it has its answer.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public Stub stub(String requestLine) {
    return stub(RequestPattern.of(requestLine));
  }

  /**
   * Begins a stub for the requests that fit a pattern.
   *
   * @throws IllegalArgumentException if the pattern is null
   * @throws IllegalStateException if this is closed
   */
  public Stub stub(RequestPattern pattern) {
    requirePattern(pattern);
    return new Stub(this, begin(pattern));
  }

  /**
   * Stubs a collection of a REST service, for code that writes and reads back: what it creates, it
   * finds in the list. The collection belongs to the scope, and begins each inner scope anew.
   *
   * @param url the URL of the whole collection, as in a request line: {@code
   *     https://berths.example/v1/bookings}
   * @throws IllegalArgumentException if the URL is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public RestCollection collection(String url) {
    requireOpen();
    return new RestCollection(this, url);
  }

  void onStartAgain(Runnable restart) {
    scopes.onStartAgain(restart);
  }

  /**
   * All calls that were made in the scope.
   *
   * @throws IllegalStateException if this is closed
   */
  public Calls calls() {
    requireOpen();
    return Calls.of(log);
  }

  /**
   * The calls that fit a request line, answered or not.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public Calls calls(String requestLine) {
    return calls(RequestPattern.of(requestLine));
  }

  /**
   * The calls that fit a pattern, answered or not.
   *
   * @throws IllegalArgumentException if the pattern is null
   * @throws IllegalStateException if this is closed
   */
  public Calls calls(RequestPattern pattern) {
    requirePattern(pattern);
    return calls().matching(pattern);
  }

  /**
   * Begins an inner scope: stubs and calls from here on are gone when it is closed, and the stubs
   * that are in force now answer from their first answer again. A test framework opens one for each
   * test; the JUnit extension does.
   *
   * @throws IllegalStateException if this is closed
   */
  public Scope scope() {
    requireOpen();
    StubScope entered = scopes.enter();
    return () -> leave(entered);
  }

  /** The stubs and calls of one test, or of one class. Closed by whoever began it. */
  @FunctionalInterface
  public interface Scope extends AutoCloseable {

    /**
     * Ends the scope, and those in it. Closing again does nothing.
     *
     * @throws AssertionError if it had unexpected calls, see {@link UnexpectedCalls}
     * @throws IllegalStateException if a stub of it has no answer
     */
    @Override
    void close();
  }

  /**
   * Ends the scope and begins it anew: its stubs and calls are gone.
   *
   * @throws AssertionError if it had unexpected calls, see {@link UnexpectedCalls}
   * @throws IllegalStateException if a stub of it has no answer, or if this is closed
   */
  public void reset() {
    requireOpen();
    end(scopes.renew());
  }

  /**
   * Stops intercepting and puts the JVM back as it was: calls go to the real network again, nothing
   * of ours is trusted, and no thread, port or connection of ours is left. Closing again does
   * nothing.
   *
   * @throws AssertionError if there were unexpected calls, see {@link UnexpectedCalls}
   * @throws IllegalStateException if a stub has no answer
   */
  @Override
  public void close() {
    synchronized (this) {
      if (closed != null) {
        return;
      }
      closed = Caller.place();
    }
    try (server) {
      interception.close();
    }
    raise(scopes.leaveAll());
  }

  DraftStub begin(RequestPattern pattern) {
    requireOpen();
    DraftStub draft = new DraftStub(pattern, Caller.place());
    scopes.begin(draft);
    return draft;
  }

  /**
   * Puts a stub into force.
   *
   * @param expected whether it is worth a word if no call uses it
   */
  StubRule finish(DraftStub draft, List<Answer> answers, boolean expected) {
    requireOpen();
    StubRule rule =
        new StubRule(
            draft.pattern(),
            draft.reference(),
            answers.stream().map(this::ready).toList(),
            draft.checks(),
            expected);
    scopes.finish(draft, rule);
    return rule;
  }

  void change(StubRule rule, Consumer<StubRule> change) {
    requireOpen();
    scopes.change(rule, change);
  }

  /** An answer with the file read that it names. */
  Answer ready(Answer answer) {
    return answer instanceof ResponseAnswer plain && plain.delivery().source().isPresent()
        ? plain.read(resources.read(plain.delivery().source().get()))
        : answer;
  }

  private void leave(StubScope entered) {
    if (closed == null) {
      end(scopes.leave(entered));
    }
  }

  private void end(ScopeReport report) {
    // A port of this machine that no stub names any more is the application's own again.
    server.end((host, port) -> interception.isLocal(host) && !scopes.nameDestination(host, port));
    raise(report);
  }

  private void raise(ScopeReport report) {
    if (settings.unusedStubs() == UnusedStubs.WARN) {
      report.unusedStubs().ifPresent(Cachette::warn);
    }
    report.raise(
        settings.unexpectedCalls() == UnexpectedCalls.FAIL,
        settings.unusedStubs() == UnusedStubs.FAIL);
  }

  private Destinations destinations() {
    return new Destinations() {
      @Override
      public boolean wantsLocal(String host, int port) {
        return scopes.nameDestination(host, port);
      }

      @Override
      public InetSocketAddress listenerFor(String host, int port) throws IOException {
        return server.listenerFor(host, port);
      }
    };
  }

  /** Looks the logger up when it is needed: a logging library takes long to start. */
  private static void warn(String explanation) {
    LoggerFactory.getLogger(Cachette.class).warn(explanation);
  }

  private static void requirePattern(RequestPattern pattern) {
    if (pattern == null) {
      throw new IllegalArgumentException("The request pattern must not be null.");
    }
  }

  private void requireOpen() {
    if (closed != null) {
      throw new IllegalStateException(
          this + " was closed at " + closed + ". Mend: open another with Cachette.open().");
    }
  }

  /** Says where it was opened, or by whom. */
  @Override
  public String toString() {
    return "The Cachette " + name;
  }
}
