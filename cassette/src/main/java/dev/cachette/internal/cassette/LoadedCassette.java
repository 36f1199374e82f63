// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.match.HostPattern;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * An active cassette, which answers calls or records them. Thread-safe: its own lock guards all
 * state, and the only user code called under it is comparisons.
 */
public final class LoadedCassette {

  /** A request without a match is compared with this many recorded exchanges. */
  private static final int MOST_EXAMINED = 50;

  /** The authorization code that recorded redirects have, since theirs was redacted. */
  private static final String CODE = "recorded-code";

  private static final int LARGE = 1 << 20;

  private final String name;
  private final CassetteSettings settings;
  private final RecordingMode recording;
  private final RecordedExchanges known;
  private final Matching matching;
  private final ReplayIndex playlist;
  private final List<HostPattern> hosts;
  private final Redactor redactor;
  private final List<Exchange> recorded = new ArrayList<>();

  /** The recorded exchanges as they are written; the first {@link #grown} of them. */
  private final List<Exchange> finished = new ArrayList<>();

  private int grown;

  /** The number of secrets that were known then. */
  private int secretsBefore;

  private volatile Recorder recorder = new Recorder() {};
  private boolean discarded;

  /** The exchanges that have answered a call. */
  private final BitSet replayed = new BitSet();

  private Optional<Choice> choice = Optional.empty();
  private List<Uri> named = List.of();
  private TokenSigner signer = TokenSigner.NONE;

  /** The values of this run by their names, such as the state of a login. */
  private final Map<String, String> login = new HashMap<>();

  private int calls;
  private Duration realTime = Duration.ZERO;

  /** Ends the exchanges whose responses are still arriving. */
  private final List<Runnable> arriving = new ArrayList<>();

  /**
   * Creates an active cassette.
   *
   * @param name its name in the test
   * @param recording the mode of this run
   * @param known the exchanges that are recorded already
   */
  public LoadedCassette(
      String name, CassetteSettings settings, RecordingMode recording, RecordedExchanges known) {
    this.name = name;
    this.settings = settings;
    this.recording = recording;
    this.known = known;
    this.matching = Varying.of(known).ignoredBy(settings.matching());
    this.playlist = new ReplayIndex(known, matching);
    this.hosts = settings.hosts().stream().map(HostPattern::of).toList();
    this.redactor = new Redactor(settings.redaction());
  }

  /** Returns its name in the test. */
  public String name() {
    return name;
  }

  /** Returns its settings. */
  public CassetteSettings settings() {
    return settings;
  }

  /** Returns the mode of this run. */
  public RecordingMode mode() {
    return recording;
  }

  /** Returns the exchanges that are recorded already. */
  public RecordedExchanges known() {
    return known;
  }

  /** Returns what is recorded already, as the public API shows it. */
  public CassetteContent before() {
    return new CassetteContent(name, RecordedAt.of(known), known);
  }

  /** Returns true if it has an exchange with the origin of this request. */
  public boolean answers(Request request) {
    String beginning = request.uri().origin() + "/";
    return known.index().entries().stream().anyMatch(it -> it.url().startsWith(beginning));
  }

  /** Returns a recorded request with named secrets filled in, to send it again. */
  public Request filled(Request request) {
    return redactor.fill(request);
  }

  /**
   * The use of a cassette so far.
   *
   * @param replayed how many of its exchanges answered a call
   * @param calls how many calls they answered
   * @param realTime how long the real services took for these calls, when they were recorded
   * @param recorded how many exchanges were recorded
   */
  public record Use(int replayed, int calls, Duration realTime, int recorded) {}

  /** Returns what has been done with it. */
  public synchronized Use use() {
    return new Use(replayed.cardinality(), calls, realTime, recorded.size());
  }

  /** Returns true if it is for calls to a host; the port may be unknown. */
  public boolean isFor(String host, OptionalInt port) {
    return hosts.isEmpty() || hosts.stream().anyMatch(it -> it.isFor(host, port));
  }

  /** Returns true if its hosts include exactly this host. */
  public boolean names(String host, int port) {
    return hosts.stream().anyMatch(it -> it.names(host, port))
        || named.stream().anyMatch(it -> it.host().equals(host) && it.port() == port);
  }

  /** Returns true if unknown requests go to the real service, and are recorded. */
  public boolean records() {
    return recording != RecordingMode.REPLAY;
  }

  /**
   * A recorded exchange that answers.
   *
   * @param exchange the exchange, with placeholders filled
   * @param reference its name and place in the log
   * @param delay how long its caller waits for it
   * @param pauses the pauses between the pieces of its body
   */
  public record Replayed(
      Exchange exchange, StubReference reference, Duration delay, List<Duration> pauses) {}

  /** Returns true if a call to a host will certainly use the network. */
  public boolean mustAsk(String host) {
    return records() && (!replays() || !playlist.knows(host));
  }

  /** Chooses the exchange that answers a request; both have placeholders for secrets. */
  @FunctionalInterface
  public interface Choice {

    /** Returns its index; empty if none answers. */
    Optional<Integer> of(Request request);
  }

  /**
   * Lets a choice decide which exchange answers, instead of its matching.
   *
   * @param destinations the origins that it is for, even if they are on this machine
   */
  public void chooseBy(Choice other, Set<String> destinations) {
    choice = Optional.of(other);
    named = destinations.stream().map(Uri::parseOrigin).toList();
  }

  /** Returns the tokens that were signed again, with the names of their placeholders. */
  public synchronized Map<String, String> signed() {
    return redactor.signed();
  }

  /** Adds tokens that others have signed, with the names of their placeholders. */
  public synchronized void learnSigned(Map<String, String> names) {
    redactor.learnSigned(names);
  }

  /** Sets who signs tokens again. */
  public synchronized void signedBy(TokenSigner other) {
    signer = other;
  }

  /** Returns true if a choice decides which exchange answers. */
  public boolean isChosen() {
    return choice.isPresent();
  }

  /** Returns the hosts that it is for, even if they are this machine. */
  public List<String> namedHosts() {
    return named.stream().map(Uri::host).distinct().toList();
  }

  /** Returns the exchange that answers a request. */
  public synchronized Optional<Replayed> replay(Request request) {
    if (!replays()) {
      return Optional.empty();
    }
    if (choice.isPresent()) {
      Optional<Integer> chosen = choice.get().of(redactor.redact(request));
      chosen.ifPresent(at -> playlist.playedFor(request.uri().host()));
      return chosen.map(at -> replayed(at, request));
    }
    return isLargeAndUnknown(request)
        ? Optional.empty()
        : playlist.next(redactor.redact(request)).map(at -> replayed(at, request));
  }

  /** Returns true for a large upload to another URL; redacting its body would take seconds. */
  private boolean isLargeAndUnknown(Request request) {
    if (request.body().size() < LARGE) {
      return false;
    }
    Request bare = new Request(request.method(), request.uri(), request.headers(), Body.empty());
    return !playlist.knows(redactor.redact(bare));
  }

  private Replayed replayed(int at, Request request) {
    Exchange exchange = redactor.fill(known.replayable(at), signer, ofLogin(request));
    replayed.set(at);
    calls++;
    realTime = realTime.plus(exchange.time());
    double speed = settings.recordedTiming().orElse(0);
    if (speed == 0 || exchange.pieces().isEmpty()) {
      return new Replayed(exchange, reference(at), times(exchange.time(), speed), List.of());
    }
    List<Duration> pauses = new ArrayList<>();
    Duration last = exchange.pieces().get(0).at();
    for (Exchange.Piece piece : exchange.pieces().subList(1, exchange.pieces().size())) {
      pauses.add(times(piece.at().minus(last), speed));
      last = piece.at();
    }
    return new Replayed(
        exchange, reference(at), times(exchange.pieces().get(0).at(), speed), pauses);
  }

  private Map<String, String> ofLogin(Request request) {
    Map<String, String> own = LoginParameters.values(request);
    login.putAll(own);
    Map<String, String> all = new HashMap<>(login);
    if (!own.isEmpty()) {
      all.put("code", CODE);
    }
    return all;
  }

  private static Duration times(Duration recorded, double speed) {
    return Duration.ofNanos((long) (Math.max(0, recorded.toNanos()) * speed));
  }

  private StubReference reference(int at) {
    return new StubReference(
        "exchange " + (at + 1) + " of " + name,
        known.index().name() + ":" + known.index().entries().get(at).line());
  }

  private boolean replays() {
    return recording == RecordingMode.REPLAY || recording == RecordingMode.EXTEND;
  }

  /** Returns the recorded fault that the next connection to a host gets, if there is one. */
  public synchronized Optional<Fault.Kind> nextFault(String host) {
    return records() ? Optional.empty() : playlist.nextFault(host);
  }

  /** Moves on past that fault. */
  public synchronized void skipFault(String host) {
    playlist.skipFault(host);
  }

  /** Returns true if it has a fault that happens before there is a request. */
  public boolean hasEarlyFaults() {
    return !records() && playlist.hasFaults();
  }

  /** Notes that a response is still arriving. */
  public synchronized void begin(Runnable stop) {
    arriving.add(stop);
  }

  /** Notes that it is not any more. */
  public synchronized void ended(Runnable stop) {
    arriving.remove(stop);
  }

  /** Ends what is still arriving: it is recorded as far as it came. */
  public void stopArriving() {
    List<Runnable> now;
    synchronized (this) {
      now = List.copyOf(arriving);
    }
    now.forEach(Runnable::run);
  }

  /** Stores what a real service answered, or how it failed. */
  public void keep(Exchange exchange) {
    synchronized (this) {
      recorded.add(exchange);
    }
    recorder.kept();
  }

  /** Waits a moment until what was kept is written, if it is written while it is recorded. */
  public void awaitWritten() {
    recorder.awaitWritten();
  }

  /** Sets who writes what is recorded. */
  public void recordedBy(Recorder newRecorder) {
    recorder = newRecorder;
  }

  /** Writes what is recorded, while it is recorded. */
  public interface Recorder {

    /** Called when an exchange was kept; must not block. */
    default void kept() {}

    /** Waits a moment until everything that was kept is written. */
    default void awaitWritten() {}
  }

  /** Discards what was recorded, because the test has failed. */
  public synchronized void discard() {
    discarded = true;
  }

  /** Returns true if what was recorded is to be written, if anything was. */
  public synchronized boolean isToBeKept() {
    return records() && (!discarded || settings.isKeepingOnFailure());
  }

  /** Returns true if anything was recorded. */
  public synchronized boolean hasRecorded() {
    return !recorded.isEmpty();
  }

  /** Starts again with the first exchange. */
  public synchronized void startAgain() {
    playlist.startAgain();
  }

  /**
   * Returns what was recorded, in the order in which it began, transformed and redacted. If
   * redaction is strict, what looks like a secret is left out, see {@link #refusal}.
   */
  public synchronized List<Exchange> finished() {
    catchUp();
    List<Exchange> sorted = new ArrayList<>(finished);
    sorted.sort((one, other) -> one.started().compareTo(other.started()));
    return sorted;
  }

  /**
   * Prepares what was recorded since the last time. Something in it, or in a request, may be a
   * secret that earlier exchanges have, too.
   *
   * @return true if earlier exchanges have changed
   */
  private boolean catchUp() {
    List<Exchange> fresh = finished(recorded.subList(grown, recorded.size()), grown + 1);
    boolean changed = false;
    if (redactor.secrets() != secretsBefore) {
      changed = redactor.redactAgain(finished);
      secretsBefore = redactor.secrets();
    }
    finished.addAll(fresh);
    grown = recorded.size();
    return changed;
  }

  private List<Exchange> finished(List<Exchange> exchanges, int first) {
    List<Exchange> altered = new ArrayList<>();
    for (Exchange exchange : exchanges) {
      Exchange now = exchange;
      for (UnaryOperator<Exchange> alteration : settings.transformed()) {
        now = alteration.apply(now);
      }
      altered.add(now);
    }
    altered.sort((one, other) -> one.started().compareTo(other.started()));
    return redactor.redactAll(altered, first).stream().map(TokenClaims::received).toList();
  }

  /**
   * The exchanges that were recorded since the last time.
   *
   * @param exchanges the exchanges, as {@link #finished} returns them
   * @param isAll true if these are all that were recorded: at first, and if something in earlier
   *     ones has turned out to be secret
   */
  public record Growth(List<Exchange> exchanges, boolean isAll) {

    /** Returns the exchanges as they are in the file. */
    public List<String> entries() {
      return exchanges.stream().map(HarWriter::entry).toList();
    }
  }

  /** Returns what was recorded since the last call of this method. */
  public synchronized Growth growth() {
    int before = finished.size();
    boolean isAll = catchUp() || before == 0;
    return isAll
        ? new Growth(finished(), true)
        : new Growth(List.copyOf(finished.subList(before, finished.size())), false);
  }

  /** Returns entries as they follow others in its file. */
  public static String following(List<String> entries) {
    return HarWriter.BETWEEN + String.join(HarWriter.BETWEEN, entries);
  }

  /** Returns what follows the entries in its file. */
  public String fileEnd() {
    return HarWriter.end(known.index().root());
  }

  /** Returns a warning of what was redacted because it looks like a secret; empty for nothing. */
  public synchronized Optional<String> warning() {
    return redactor.isStrict()
        ? Optional.empty()
        : redactor.likely().warning(name, CassetteInternals.isOfCommandLine(settings));
  }

  /** Returns why some of what was recorded is left out, because redaction is strict. */
  public synchronized Optional<CassetteException> refusal() {
    return redactor.isStrict()
        ? redactor.likely().refusal(name).map(CassetteException::new)
        : Optional.empty();
  }

  /** Returns the closest exchanges, for an explanation. */
  public synchronized List<Explanation.Stub> near(Request request) {
    if (!replays()) {
      return List.of();
    }
    Request redacted = PlainForms.of(redactor.redact(request));
    List<Explanation.Stub> near = new ArrayList<>();
    for (int at : playlist.near(redacted, MOST_EXAMINED)) {
      Exchange written = known.get(at);
      Exchange exchange = written.with(PlainForms.of(written.request()));
      RequestPattern pattern = RecordedPattern.of(exchange.request(), matching);
      List<Check> obstacles =
          pattern.match(redacted).isPresent()
              ? List.of(ReplayMismatch.of(exchange, redacted, matching))
              : List.of();
      near.add(
          new Explanation.Stub(pattern, reference(at), () -> obstacles, Optional.of(redacted)));
    }
    return near;
  }

  /** Returns its name and mode. */
  @Override
  public String toString() {
    String size = known.size() == 1 ? "1 exchange" : known.size() + " exchanges";
    return "the cassette \"" + name + "\" (" + recording + ", " + size + ")";
  }
}
