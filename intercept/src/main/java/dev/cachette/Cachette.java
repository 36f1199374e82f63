package dev.cachette;

import static dev.cachette.internal.calls.CallsAccess.callsAccess;

import dev.cachette.answer.Answer;
import dev.cachette.calls.Calls;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.internal.agent.Interception;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.LetThrough;
import dev.cachette.internal.stub.Place;
import dev.cachette.internal.stub.Scopes;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.internal.stub.StubScope;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.match.RequestPattern;
import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

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
 * <p>While it is open, no connection of this JVM leaves this machine, unless {@link #letThrough}
 * says so. A connection to this machine itself (a loopback address, {@code localhost}, an own
 * network address) is left alone, unless a stub names its host and port. Where several stubs match
 * a call, the inner scope wins, then the more specific request, then the later declaration. A call
 * that no stub answers gets status 501 with the reason as text, is logged as a warning, and makes
 * {@link #close} fail.
 *
 * <p>One Cachette serves the whole JVM, so only one can be open at a time, unless they do not
 * intercept ({@link Settings#withoutInterception()}). All methods may be called from any thread.
 */
public final class Cachette implements AutoCloseable {

  private final String name;
  private final long seed;
  private final Session session;
  private final Scopes scopes;
  private final Log log;
  private volatile @Nullable Place closed;

  private Cachette(Settings settings, Place opened) {
    this.name = settings.name().map(given -> "of " + given).orElse("opened at " + opened);
    this.seed = settings.seed();
    this.session = new Session(settings, this);
    this.scopes = session.scopes();
    this.log = new ScopeLog(scopes);
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
          "The settings must not be null. Fix: Settings.defaults().");
    }
    return new Cachette(settings, Caller.place());
  }

  /**
   * Puts the hooks into the JVM, and intercepts nothing yet. Connections that clients make from now
   * on, and keep, are then known, and ended when a Cachette is opened, so that no call goes out by
   * one of them. The JUnit module does this when the first test is about to run.
   *
   * @throws IllegalStateException if this JVM does not let itself be instrumented; the message says
   *     why and what to do
   */
  public static void prepare() {
    Interception.prepare();
  }

  /**
   * Begins a stub for the requests that match a request line; see {@link RequestPattern} for how
   * one is written. It is in force once it has its answer.
   *
   * @throws IllegalArgumentException if the line is malformed; the message marks the place
   * @throws IllegalStateException if this is closed
   */
  public Stub stub(String requestLine) {
    return stub(RequestPattern.of(requestLine));
  }

  /**
   * Begins a stub for the requests that match a pattern.
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
   * finds in the list. The collection belongs to the scope, and begins each inner scope again.
   *
   * @param url the URL of the whole collection, as in a request line: {@code
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
   * Puts the stubs of files into force, in this scope. Each name is that of a stub file in the
   * folder of {@link Settings#stubFolder}, else on the class path: {@code harbour} is {@code
   * harbour.stubs.yaml}, {@code .yml} or {@code .json}, or all such files in the folder {@code
   * harbour}. A name with an ending is the path of a file, from the working directory.
   *
   * <p>Stubs of a later file are declared later; those of a file that is included, before the one
   * that includes it.
   *
   * @throws dev.cachette.stubfile.StubFileException if a file is missing or wrong, with all that is
   *     wrong in all of them; no stub of them is in force then
   * @throws IllegalStateException if this is closed
   */
  public StubFiles load(String... names) {
    requireOpen();
    return new StubFiles(this, scopes.innermost(), session.stubSources(names), seed);
  }

  /**
   * Puts the stubs of a text into force, which is written as a stub file: YAML or JSON.
   *
   * @throws dev.cachette.stubfile.StubFileException if the text is wrong
   * @throws IllegalStateException if this is closed
   */
  public StubFiles declare(String text) {
    requireOpen();
    return new StubFiles(this, scopes.innermost(), session.stubSource(text), seed);
  }

  /**
   * Returns the stubs in force as a stub file, in YAML. Those that no file can have, since a
   * function, a gate or a feed is in them, are named in comments.
   *
   * @throws IllegalStateException if this is closed
   */
  public String toStubFile() {
    requireOpen();
    return StubWriter.all(scopes.rules());
  }

  /**
   * Holds every call to a service against its description, in this scope: a request that the
   * service would refuse, and a stub that answers what it never would, fail the test with the path,
   * the rule and the value. The paths of the description begin where its {@code servers} say.
   *
   * @param origin where the service is: {@code https://berths.example}
   * @param name a description in OpenAPI 3.0 or 3.1, YAML or JSON: a file in the folder of {@link
   *     Settings#stubFolder}, or from the working directory, or a resource on the class path
   * @throws IllegalArgumentException if the origin is malformed, or the description is missing or
   *     malformed; the message gives file, line and place
   * @throws IllegalStateException if this is closed
   */
  public DescribedService describedBy(String origin, String name) {
    requireOpen();
    return session.describe(origin, name);
  }

  /**
   * Leaves some calls alone, in this scope: they go to the real network, to be answered there.
   *
   * <p>Each text is a host ({@code tides.example}, {@code *.example}), a host and port ({@code
   * db.example:5432}), or a request line ({@code GET https://tides.example/v1/health}). Connections
   * to a host are left alone as a whole, whatever they carry, unless a stub is for that host: then
   * its calls come here first, and those that no stub answers are answered by the real service, as
   * {@link dev.cachette.answer.Answers#realService()} would. So are the requests that match a line.
   *
   * @throws IllegalArgumentException if one is none of these
   * @throws IllegalStateException if this is closed
   */
  public void letThrough(String... texts) {
    requireOpen();
    if (texts == null || texts.length == 0) {
      throw new IllegalArgumentException(
          "letThrough(...) was given nothing. Fix: a host, such as \"tides.example\".");
    }
    Place place = Caller.place();
    for (String text : texts) {
      scopes.letThrough(LetThrough.of(text, place));
    }
  }

  /**
   * Puts a cassette in, for this scope, with the settings of {@link Settings#cassettes}.
   *
   * @see #cassette(String, CassetteSettings)
   */
  public ActiveCassette cassette(String name) {
    return cassette(name, session.cassetteSettings());
  }

  /**
   * Puts a cassette in, for this scope: calls that no stub answers are answered from its
   * recordings, or go to the real service and are recorded, as its settings say. What was recorded
   * is written when the scope ends, unless the test has failed. Where several are in play, the one
   * of the inner scope goes first, then the one that was put in earlier.
   *
   * @param name what it is called; {@code harbour/arrival} is the file {@code harbour/arrival.har}
   *     in the folder of {@link Settings#cassetteFolder}
   * @throws IllegalArgumentException if it is no name of a file, or an override is malformed
   * @throws dev.cachette.cassette.CassetteException if it is missing and not to be recorded, is
   *     damaged, or is stale and that is an error
   * @throws IllegalStateException if this is closed
   */
  public ActiveCassette cassette(String name, CassetteSettings settings) {
    requireOpen();
    if (settings == null) {
      throw new IllegalArgumentException(
          "The settings of a cassette must not be null. Fix: CassetteSettings.defaults().");
    }
    return session.put(name, settings);
  }

  /**
   * Puts the cassette of a file in, wherever it is; else as {@link #cassette(String,
   * CassetteSettings)}.
   *
   * @throws IllegalArgumentException if the file is null
   */
  public ActiveCassette cassette(Path file, CassetteSettings settings) {
    requireOpen();
    if (file == null || settings == null) {
      throw new IllegalArgumentException(
          "cassette(file, settings) was given null. Fix: CassetteSettings.defaults().");
    }
    return session.put(file.toString(), file, settings);
  }

  /**
   * Says that the test has failed: what its cassettes have recorded is not kept, unless their
   * settings say otherwise. The JUnit extension does this.
   *
   * @throws IllegalStateException if this is closed
   */
  public void discardRecordings() {
    requireOpen();
    session.discardRecordings();
  }

  /**
   * Returns a base URL for code that is not in this JVM: {@code http://127.0.0.1:41234}. Its calls
   * fit stubs for a path alone, and stubs for the host that their Host header names.
   *
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public String baseUrl() {
    requireOpen();
    return session.baseUrl();
  }

  /**
   * Returns a base URL that stands for an origin: calls to it over plain HTTP are calls to that
   * origin, for stubs and assertions. For code that is not in this JVM, or in a Cachette that does
   * not intercept.
   *
   * @param origin scheme, host and port, as in a request line: {@code https://tides.example}
   * @throws IllegalArgumentException if the origin is malformed
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public String baseUrlFor(String origin) {
    requireOpen();
    return session.baseUrlFor(origin);
  }

  /**
   * Returns a proxy for code that is not in this JVM; see {@link ForwardProxy}.
   *
   * @throws IllegalStateException if this is closed, or no port is free
   */
  public ForwardProxy proxy() {
    requireOpen();
    return session.proxy();
  }

  /**
   * Returns what is worth knowing when a test has failed: of flaky stubs, how often they failed,
   * and the seed that makes them fail so again. Empty if there is nothing.
   *
   * @throws IllegalStateException if this is closed
   */
  public List<String> notes() {
    requireOpen();
    return scopes.notes();
  }

  /**
   * Returns all calls that were made in the scope.
   *
   * @throws IllegalStateException if this is closed
   */
  public Calls calls() {
    requireOpen();
    return callsAccess().of(log);
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
    session.makeConnectionsNew();
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
   * Ends the scope and begins it again: its stubs and calls are gone.
   *
   * @throws AssertionError if it had unexpected calls, see {@link UnexpectedCalls}
   * @throws IllegalStateException if a stub of it has no answer, or if this is closed
   */
  public void reset() {
    requireOpen();
    session.end(scopes.renew());
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
    session.close();
  }

  DraftStub begin(RequestPattern pattern) {
    requireOpen();
    DraftStub draft = new DraftStub(pattern, Caller.place());
    scopes.begin(draft);
    return draft;
  }

  /** Puts a stub into force. */
  StubRule finish(DraftStub draft, List<Answer> answers) {
    requireOpen();
    return session.finish(draft, answers);
  }

  /** Returns a stub that is to be put into force by {@link #replace}. */
  StubRule rule(DraftStub draft, List<Answer> answers, boolean expected) {
    return session.rule(draft, answers, expected);
  }

  Map<StubRule, StubRule> winnersOver(List<StubRule> rules) {
    return scopes.winnersOver(rules);
  }

  /** Puts stubs into force in the place of others. */
  void replace(StubScope scope, Collection<StubRule> old, List<StubRule> fresh) {
    requireOpen();
    session.replace(scope, old, fresh);
  }

  void change(StubRule rule, Consumer<StubRule> change) {
    requireOpen();
    session.change(rule, change);
  }

  /** Returns an answer with the file read that it names. */
  Answer ready(Answer answer) {
    return session.ready(answer);
  }

  long seed() {
    return seed;
  }

  private void leave(StubScope entered) {
    if (closed == null) {
      session.end(scopes.leave(entered));
    }
  }

  private static void requirePattern(RequestPattern pattern) {
    if (pattern == null) {
      throw new IllegalArgumentException("The request pattern must not be null.");
    }
  }

  private void requireOpen() {
    if (closed != null) {
      throw new IllegalStateException(
          this + " was closed at " + closed + ". Fix: open another with Cachette.open().");
    }
  }

  /** Says where it was opened, or by whom. */
  @Override
  public String toString() {
    return "The Cachette " + name;
  }
}
