package dev.cachette.internal.cassette;

import dev.cachette.answer.Trouble;
import dev.cachette.calls.StubReference;
import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Recording;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.match.HostPattern;
import dev.cachette.match.Check;
import dev.cachette.match.RequestPattern;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;

/**
 * A cassette while calls are answered from it, or recorded onto it. May be shared between threads:
 * everything is guarded by its own lock, and nothing of the user's but comparisons is called under
 * it.
 */
public final class InPlay {

  /** So many of its recordings are held against a request that none of them fits. */
  private static final int MOST_EXAMINED = 50;

  private final String name;
  private final CassetteSettings settings;
  private final Recording recording;
  private final Recordings known;
  private final Matching matching;
  private final Playlist playlist;
  private final List<HostPattern> hosts;
  private final Redactor redactor;
  private final List<Exchange> recorded = new ArrayList<>();
  private boolean discarded;

  /**
   * A cassette that is put in.
   *
   * @param name as the test names it
   * @param recording what it does about the network, all things considered
   * @param known what was recorded before
   */
  public InPlay(String name, CassetteSettings settings, Recording recording, Recordings known) {
    this.name = name;
    this.settings = settings;
    this.recording = recording;
    this.known = known;
    this.matching = Varying.of(known).ignoredBy(settings.matching());
    this.playlist = new Playlist(known, matching);
    this.hosts = settings.hosts().stream().map(HostPattern::of).toList();
    this.redactor = new Redactor(settings.redaction());
  }

  /** As the test names it. */
  public String name() {
    return name;
  }

  /** How it records, replays and chooses. */
  public CassetteSettings settings() {
    return settings;
  }

  /** What it does about the network. */
  public Recording recording() {
    return recording;
  }

  /** What was recorded before. */
  public Recordings known() {
    return known;
  }

  /** What was recorded before, as its users see it. */
  public Cassette before() {
    return new Cassette(name, RecordedAt.of(known), known);
  }

  /** Whether there is a recording from the origin of this request. */
  public boolean answers(Request request) {
    String beginning = request.uri().origin() + "/";
    return known.index().entries().stream().anyMatch(it -> it.url().startsWith(beginning));
  }

  /** A recorded request with the values of named secrets in it, to be sent again. */
  public Request filled(Request request) {
    return redactor.fill(request);
  }

  /** Whether it is for calls to a host; the port may not be known yet. */
  public boolean isFor(String host, OptionalInt port) {
    return hosts.isEmpty() || hosts.stream().anyMatch(it -> it.isFor(host, port));
  }

  /** Whether it names this very host. */
  public boolean names(String host, int port) {
    return hosts.stream().anyMatch(it -> it.names(host, port));
  }

  /** Whether what it does not know is to be asked of the real service, and kept. */
  public boolean records() {
    return recording != Recording.REPLAY;
  }

  /**
   * A recording that answers.
   *
   * @param exchange the recording, with the markers in it filled
   * @param reference what it is called in the log, and where it stands
   * @param delay how long its caller waits for it
   */
  public record Replayed(Exchange exchange, StubReference reference, Duration delay) {}

  /** Whether a call to a host is sure to go to the network. */
  public boolean mustAsk(String host) {
    return records() && (!replays() || !playlist.knows(host));
  }

  /** What answers a request. */
  public synchronized Optional<Replayed> replay(Request request) {
    return replays()
        ? playlist.next(redactor.redact(request)).map(this::replayed)
        : Optional.empty();
  }

  private Replayed replayed(int at) {
    Exchange exchange = redactor.fill(known.get(at));
    double nanos = exchange.time().toNanos() * settings.speed().orElse(0);
    return new Replayed(exchange, reference(at), Duration.ofNanos((long) nanos));
  }

  private StubReference reference(int at) {
    return new StubReference(
        "exchange " + (at + 1) + " of " + name,
        known.index().name() + ":" + known.index().entries().get(at).line());
  }

  private boolean replays() {
    return recording == Recording.REPLAY || recording == Recording.EXTEND;
  }

  /** The trouble that the next connection to a host meets, if one was recorded. */
  public synchronized Optional<Trouble.Kind> nextTrouble(String host) {
    return records() ? Optional.empty() : playlist.nextTrouble(host);
  }

  /** The turn of that trouble is over. */
  public synchronized void skipTrouble(String host) {
    playlist.skipTrouble(host);
  }

  /** Whether there is any trouble that comes before a request. */
  public boolean hasEarlyTroubles() {
    return !records() && playlist.hasTroubles();
  }

  /** Keeps what a real service answered, or that it did not. */
  public synchronized void keep(Exchange exchange) {
    recorded.add(exchange);
  }

  /** What was recorded is not to be kept: the test has failed. */
  public synchronized void discard() {
    discarded = true;
  }

  /** Whether what was recorded is to be written, if there is any. */
  public synchronized boolean isToBeKept() {
    return records() && (!discarded || settings.isKeepingOnFailure());
  }

  /** Whether anything was recorded. */
  public synchronized boolean hasRecorded() {
    return !recorded.isEmpty();
  }

  /** From the first recording on again. */
  public synchronized void startAgain() {
    playlist.startAgain();
  }

  /**
   * What was recorded, in the order in which it began, altered and redacted.
   *
   * @throws dev.cachette.cassette.CassetteException if what is left looks like a secret
   */
  public synchronized List<Exchange> finished() {
    List<Exchange> finished = new ArrayList<>();
    for (Exchange exchange : recorded) {
      Exchange altered = exchange;
      for (UnaryOperator<Exchange> alteration : settings.alterations()) {
        altered = alteration.apply(altered);
      }
      finished.add(altered);
    }
    finished.sort((one, other) -> one.started().compareTo(other.started()));
    return redactor.redactAll(name, finished);
  }

  /** The recordings that come nearest, as an explanation wants them. */
  public synchronized List<Explanation.Stub> near(Request request) {
    if (!replays()) {
      return List.of();
    }
    Request redacted = redactor.redact(request);
    List<Explanation.Stub> near = new ArrayList<>();
    for (int at : playlist.near(redacted, MOST_EXAMINED)) {
      Exchange exchange = known.get(at);
      RequestPattern pattern = RecordedPattern.of(exchange.request(), matching);
      List<Check> obstacles =
          pattern.match(redacted).isPresent()
              ? List.of(Obstacles.of(exchange, redacted, matching))
              : List.of();
      near.add(new Explanation.Stub(pattern, reference(at), obstacles, Optional.of(redacted)));
    }
    return near;
  }

  /** The name, and what it does. */
  @Override
  public String toString() {
    String size = known.size() == 1 ? "1 exchange" : known.size() + " exchanges";
    return "the cassette \"" + name + "\" (" + recording + ", " + size + ")";
  }
}
