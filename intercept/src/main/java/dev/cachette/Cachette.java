// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.engine.LetThrough;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.match.RequestPattern;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Intercepts the outgoing HTTP and HTTPS calls of this JVM, answers them from stubs, and records
 * them for assertions.
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
 * <p>While it is open, no connection of this JVM leaves this machine, unless {@link #letThrough}
 * allows it. Connections to this machine (a loopback address, {@code localhost}, one of its network
 * addresses) are not intercepted, unless a stub names their host and port. If several stubs match a
 * call, the inner scope wins, then the more specific request, then the later declaration. A call
 * without a stub gets status 501 with the reason as text, is logged, and makes {@link #close} fail.
 *
 * <p>Interception covers the whole JVM, so only one Cachette can be open at a time, except those
 * that do not intercept ({@link Settings#withoutInterception()}). All methods are thread-safe.
 */
public final class Cachette implements AutoCloseable {

  private final String name;
  private final Session session;
  private final Scopes scopes;
  private final Log<Call> log;
  private final StubControl stubs;
  private volatile @Nullable Place closed;

  private Cachette(Settings settings, Place opened) {
    this.name = settings.name().map(given -> "of " + given).orElse("opened at " + opened);
    this.session = new Session(settings, this, settings.name().orElseGet(opened::toString));
    this.scopes = session.scopes();
    this.log = new ScopeLog(scopes, Messages::warn);
    this.stubs = new StubControl(session, settings.seed(), this::requireOpen);
  }

  /** Opens a Cachette with {@link Settings#defaults()}, see {@link #open(Settings)}. */
  public static Cachette open() {
    return open(Settings.defaults());
  }

  /**
   * Starts intercepting, for all clients of this JVM, whenever they were created. Settings that are
   * not set in code are taken from system properties, see {@link Settings#withProperties}.
   *
   * @throws IllegalArgumentException if the settings are null, or a system property is invalid
   * @throws IllegalStateException if another Cachette is open; the message says where it was
   *     opened. Or if this JVM does not allow instrumentation; the message says why and what to do
   */
  public static Cachette open(Settings settings) {
    if (settings == null) {
      throw Refusals.argument("The settings must not be null. Fix: Settings.defaults().");
    }
    Settings all = SettingsProperties.ofSystem(settings);
    Cachette opened = new Cachette(all, Caller.place());
    opened.session.observers().opened(opened);
    return opened;
  }

  /**
   * Installs the hooks in this JVM without intercepting anything yet. Connections that clients make
   * from now on are tracked, and closed when a Cachette is opened, so that no call bypasses it. The
   * JUnit module does this before the first test.
   *
   * @throws IllegalStateException if this JVM does not allow instrumentation; the message says why
   *     and what to do
   */
  public static void prepare() {
    Interception.prepare();
  }

  /**
   * Guards the network, until it is closed, whenever no Cachette is open.
   *
   * @param allowed hosts that may be connected to: {@code tides.example}, {@code *.example:8443}
   * @throws IllegalArgumentException if one is malformed
   */
  public static Guard guard(String... allowed) {
    return Guard.open(allowed);
  }

  /**
   * Declares a stub for the requests that match a request line; see {@link RequestPattern} for its
   * syntax. The stub becomes active with its answer.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public UnansweredStub stub(String requestLine) {
    return stub(RequestPattern.of(requestLine));
  }

  /**
   * Declares a stub for the requests that match a pattern.
   *
   * @throws IllegalArgumentException if the pattern is null
   * @throws IllegalStateException if this is closed
   */
  public UnansweredStub stub(RequestPattern pattern) {
    StubControl.requirePattern(pattern);
    return new UnansweredStub(this, stubs.begin(pattern));
  }

  /**
   * Simulates an outage: every call to a service gets this answer, whatever stubs there are, until
   * {@link Outage#end()} or the end of the scope. Stubs of an inner scope still win.
   *
   * @param origin the service: {@code https://parts.example}
   * @param first what callers get: {@code status(503)}, {@code connectionRefused()}
   * @param more further answers, in turn; the last one stays
   * @throws IllegalArgumentException if the origin is malformed, or an answer is null
   * @throws IllegalStateException if this is closed
   */
  public Outage outage(String origin, Answer first, Answer... more) {
    requireOpen();
    return new Outage(this, origin, scopes.innermost(), first, more);
  }

  /**
   * Stubs a collection of a REST service, for code that writes and reads back: objects that it
   * creates are in the list. The collection belongs to the scope, and is reset in each inner scope.
   *
   * @param url the URL of the collection, as in a request line: {@code
   *     https://berths.example/v1/bookings}
   * @throws IllegalArgumentException if the URL is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public RestCollection collection(String url) {
    requireOpen();
    RestCollection collection = new RestCollection(this, url);
    session.replace(scopes.innermost(), List.of(), collection.rules());
    return collection;
  }

  /**
   * Loads stub files into this scope. A name is that of a stub file in the folder of {@link
   * Settings#stubFolder}, or on the classpath: {@code harbour} is {@code harbour.stubs.yaml},
   * {@code .yml} or {@code .json}, or all such files in the folder {@code harbour}. A name with a
   * file extension is a path, relative to the working directory.
   *
   * <p>Stubs of a later file count as declared later; those of an included file, before those of
   * the file that includes it.
   *
   * @throws dev.cachette.stubfile.StubFileException if a file is missing or invalid, with all
   *     problems in all of them; none of their stubs is active then
   * @throws IllegalStateException if this is closed
   */
  public StubFiles load(String... names) {
    requireOpen();
    return new StubFiles(this, scopes.innermost(), session.files().stubs(names));
  }

  /**
   * Loads stubs from text in the format of stub files: YAML or JSON.
   *
   * @throws dev.cachette.stubfile.StubFileException if the text is invalid
   * @throws IllegalStateException if this is closed
   */
  public StubFiles declare(String text) {
    requireOpen();
    return new StubFiles(this, scopes.innermost(), session.files().stubsOf(text));
  }

  /**
   * Returns the active stubs as a stub file, in YAML. Stubs with a function, a gate or a feed
   * cannot be written, and are named in comments; secrets are masked.
   *
   * @throws IllegalStateException if this is closed
   */
  public String toStubFile() {
    requireOpen();
    return StubWriter.all(scopes.rules().stream().map(StubRule::declared).toList());
  }

  /**
   * Returns the active stubs, with what has become of them, cassettes, and API descriptions.
   *
   * @throws IllegalStateException if this is closed
   */
  public InForce inForce() {
    requireOpen();
    return InForce.of(scopes);
  }

  /**
   * Checks every call to a service against its API description, in this scope. A request or a
   * stub's response that violates the API description fails the test with path, rule and value.
   * Paths are relative to the {@code servers} of the API description.
   *
   * @param origin the service: {@code https://berths.example}
   * @param name an OpenAPI 3.0 to 3.2 description, in YAML or JSON: a file in the folder of {@link
   *     Settings#stubFolder}, or relative to the working directory, or a resource on the classpath
   * @throws IllegalArgumentException if the origin is malformed, or the API description is missing
   *     or malformed; the message gives file, line and place
   * @throws IllegalStateException if this is closed
   */
  public DescribedService describedBy(String origin, String name) {
    requireOpen();
    return session.describe(origin, name);
  }

  /**
   * Lets calls through to the real network, in this scope.
   *
   * <p>Each text is a host ({@code tides.example}, {@code *.example}), a host and port ({@code
   * db.example:5432}), or a request line ({@code GET https://tides.example/v1/health}). Connections
   * to a host are not intercepted, whatever they carry, unless a stub is for that host: then its
   * calls are intercepted, and those without a stub are answered by the real service, like {@link
   * dev.cachette.answer.Answers#realService()}. So are the requests that match a request line.
   *
   * @throws IllegalArgumentException if a text is none of these
   * @throws IllegalStateException if this is closed
   */
  public void letThrough(String... texts) {
    requireOpen();
    if (texts == null || texts.length == 0) {
      throw Refusals.argument(
          "letThrough(...) needs at least one host, such as \"tides.example\".");
    }
    Place place = Caller.place();
    for (String text : texts) {
      scopes.letThrough(LetThrough.of(text, place));
    }
  }

  /**
   * Activates a cassette in this scope, with the settings of {@link Settings#cassettes}.
   *
   * @see #cassette(String, CassetteSettings)
   */
  public ActiveCassette cassette(String name) {
    return cassette(name, session.cassetteSettings());
  }

  /**
   * Activates a cassette in this scope: calls without a stub are answered from its recorded
   * exchanges, or go to the real service and are recorded, depending on its settings. Recorded
   * exchanges are written when the scope ends, unless the test has failed. If several cassettes are
   * active, the inner scope goes first, then the one that was activated earlier.
   *
   * @param name its name; {@code harbour/arrival} is the file {@code harbour/arrival.har} in the
   *     folder of {@link Settings#cassetteFolder}
   * @throws IllegalArgumentException if it is not a valid file name, or an override is invalid
   * @throws dev.cachette.cassette.CassetteException if it is missing and must not be recorded, is
   *     damaged, or is stale and that is an error
   * @throws IllegalStateException if this is closed
   */
  public ActiveCassette cassette(String name, CassetteSettings settings) {
    requireOpen();
    if (settings == null) {
      throw Refusals.argument(
          "The settings of a cassette must not be null. Fix: CassetteSettings.defaults().");
    }
    return session.put(name, session.files().cassette(name), settings);
  }

  /**
   * Activates the cassette in a file, like {@link #cassette(String, CassetteSettings)}.
   *
   * @throws IllegalArgumentException if an argument is null
   */
  public ActiveCassette cassette(Path file, CassetteSettings settings) {
    requireOpen();
    if (file == null || settings == null) {
      throw Refusals.argument(
          "cassette(file, settings) was given null. Fix: CassetteSettings.defaults().");
    }
    return session.put(file.toString(), file, settings);
  }

  /**
   * Returns the clock of this session: of templates, rate limits, and stubs that are active from or
   * until an instant. It runs until a test moves, sets or stops it; each scope begins with the
   * clock as its outer scope left it, and restores it at its end.
   *
   * @throws IllegalStateException if this is closed
   */
  public TestClock clock() {
    requireOpen();
    return session.clock();
  }

  /**
   * Marks the current test as failed: what it has recorded is discarded, unless the settings keep
   * it, missing answers and unused stubs are not reported, and the {@link #notes()} become
   * suppressed exceptions. Test framework integrations call it.
   *
   * @throws IllegalArgumentException if the failure is null
   * @throws IllegalStateException if this is closed
   */
  public void markFailed(Throwable failure) {
    requireOpen();
    Refusals.given("markFailed(failure)", failure);
    session.markFailed(String.valueOf(failure));
    notes().forEach(note -> failure.addSuppressed(new Note(note)));
  }

  /**
   * Returns a base URL for code outside this JVM: {@code http://127.0.0.1:41234}. Its calls match
   * stubs with a path only, and stubs for the host in their Host header.
   *
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public String baseUrl() {
    requireOpen();
    return session.addresses().baseUrl();
  }

  /**
   * Returns a base URL for an origin: plain HTTP calls to it are treated as calls to that origin,
   * by stubs and assertions. For code outside this JVM, or for sessions without interception.
   *
   * @param origin scheme, host and port, as in a request line: {@code https://tides.example}
   * @throws IllegalArgumentException if the origin is malformed
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public String baseUrlFor(String origin) {
    requireOpen();
    return session.addresses().baseUrlFor(origin);
  }

  /**
   * Returns a proxy for code outside this JVM.
   *
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public ForwardProxy proxy() {
    requireOpen();
    return session.proxy();
  }

  /**
   * Returns notes for a failed test, if there are any: how often flaky stubs failed, and the seed.
   *
   * @throws IllegalStateException if this is closed
   */
  public List<String> notes() {
    requireOpen();
    return scopes.notes();
  }

  /**
   * Returns all calls in the current scope.
   *
   * @throws IllegalStateException if this is closed
   */
  public Calls calls() {
    requireOpen();
    return CallsInternals.of(log);
  }

  /**
   * Returns the calls that match a request line, answered or not.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public Calls calls(String requestLine) {
    return calls(RequestPattern.of(requestLine));
  }

  /**
   * Returns the calls that match a pattern, answered or not.
   *
   * @throws IllegalArgumentException if the pattern is null
   * @throws IllegalStateException if this is closed
   */
  public Calls calls(RequestPattern pattern) {
    StubControl.requirePattern(pattern);
    return calls().matching(pattern);
  }

  /**
   * Opens an inner scope: stubs and calls from now on are removed when it is closed, and the stubs
   * that are active now start again with their first answer.
   *
   * @throws IllegalStateException if this is closed
   */
  public Scope scope() {
    return scope(place -> true, "opened at " + Caller.place());
  }

  /**
   * Opens an inner scope for a test, as integrations of test frameworks do. Unused stubs that the
   * test method declares are reported when the scope is closed; those that were declared elsewhere
   * when this is closed, unless another test used the stub declared at the same line.
   *
   * @param className the class that declares the test method
   * @param methodName the name of the test method
   * @throws IllegalArgumentException if an argument is null
   * @throws IllegalStateException if this is closed
   */
  public Scope scope(String className, String methodName) {
    if (className == null || methodName == null) {
      throw Refusals.argument("scope(className, methodName) was given null.");
    }
    String simpleName = className.substring(className.lastIndexOf('.') + 1);
    return scope(place -> place.isIn(className, methodName), simpleName + "." + methodName);
  }

  private Scope scope(Predicate<Place> own, String test) {
    requireOpen();
    Runnable end = session.enter(own, test);
    return () -> {
      if (closed == null) {
        end.run();
      }
    };
  }

  /** The stubs and calls of one test, or of one class. Closed by the code that opened it. */
  @FunctionalInterface
  public interface Scope extends AutoCloseable {

    /**
     * Ends the scope, and those inside it. Further calls have no effect.
     *
     * @throws AssertionError if there were unexpected calls, see {@link UnexpectedCalls}
     * @throws IllegalStateException if a stub has no answer
     */
    @Override
    void close();
  }

  /**
   * Ends the current scope and opens it again, without stubs and calls.
   *
   * @throws AssertionError if there were unexpected calls, see {@link UnexpectedCalls}
   * @throws IllegalStateException if a stub has no answer, or if this is closed
   */
  public void reset() {
    requireOpen();
    session.renew();
  }

  /**
   * Stops intercepting and restores the JVM: calls reach the real network again, Cachette's
   * certificates are no longer trusted, and its threads, ports and connections are closed. Further
   * calls have no effect.
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
    session.close(this);
  }

  Session session() {
    return session;
  }

  StubControl stubs() {
    return stubs;
  }

  private void requireOpen() {
    if (closed != null) {
      throw new IllegalStateException(
          this + " was closed at " + closed + ". Fix: open another one with Cachette.open().");
    }
  }

  @Override
  public String toString() {
    return "The Cachette " + name;
  }
}
