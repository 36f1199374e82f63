package dev.cachette.cassette;

import dev.cachette.internal.match.HostPattern;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * How a cassette records, replays and chooses.
 *
 * <pre>{@code
 * net.cassette("harbour/arrival",
 *     CassetteSettings.defaults()
 *         .recording(Recording.EXTEND)
 *         .hosts("tides.example", "berths.example")
 *         .matching(how -> how.ignoringQuery("requestId"))
 *         .redact("TIDES_KEY", key));
 * }</pre>
 *
 * <p>Immutable: every method with an argument returns other settings.
 */
public final class CassetteSettings {

  private static final CassetteSettings DEFAULTS = new CassetteSettings();

  private Recording recording = Recording.CREATE;
  private List<String> hosts = List.of();
  private Matching matching = Matching.byDefault();
  private Redaction redaction = Redaction.byDefault();
  private List<UnaryOperator<Exchange>> alterations = List.of();
  private @Nullable Double speed;
  private @Nullable Duration freshFor;
  private boolean failingWhenStale;
  private boolean keepingOnFailure;
  private boolean recordingInCi;
  private boolean learningVarying;

  private CassetteSettings() {}

  private CassetteSettings(CassetteSettings other) {
    this.recording = other.recording;
    this.hosts = other.hosts;
    this.matching = other.matching;
    this.redaction = other.redaction;
    this.alterations = other.alterations;
    this.speed = other.speed;
    this.freshFor = other.freshFor;
    this.failingWhenStale = other.failingWhenStale;
    this.keepingOnFailure = other.keepingOnFailure;
    this.recordingInCi = other.recordingInCi;
    this.learningVarying = other.learningVarying;
  }

  /**
   * {@link Recording#CREATE}; all hosts; method, URL and body are compared; the usual secrets are
   * redacted; answers come at once; it is never stale; what a failed test recorded is dropped.
   */
  public static CassetteSettings defaults() {
    return DEFAULTS;
  }

  /** When it records; {@link Recording#CREATE} by default. */
  public CassetteSettings recording(Recording choice) {
    requireGiven("recording", choice);
    CassetteSettings changed = new CassetteSettings(this);
    changed.recording = choice;
    return changed;
  }

  /**
   * It is for calls to these hosts only, and leaves others to other cassettes; by default it is for
   * all.
   *
   * @param names hosts such as {@code tides.example}, {@code *.example}, {@code
   *     berths.example:8443}
   * @throws IllegalArgumentException if one is no host
   */
  public CassetteSettings hosts(String... names) {
    requireGiven("hosts", names);
    for (String name : names) {
      requireGiven("hosts", name);
      HostPattern.of(name);
    }
    CassetteSettings changed = new CassetteSettings(this);
    changed.hosts = List.of(names);
    return changed;
  }

  /** Which recording answers a request; see {@link Matching}. */
  public CassetteSettings matching(UnaryOperator<Matching> change) {
    requireGiven("matching", change);
    CassetteSettings changed = new CassetteSettings(this);
    changed.matching = change.apply(matching);
    requireGiven("matching", changed.matching);
    return changed;
  }

  /** What is taken out before anything is written; see {@link Redaction}. */
  public CassetteSettings redaction(UnaryOperator<Redaction> change) {
    requireGiven("redaction", change);
    CassetteSettings changed = new CassetteSettings(this);
    changed.redaction = change.apply(redaction);
    requireGiven("redaction", changed.redaction);
    return changed;
  }

  /**
   * Replaces a secret by {@code {{name}}} wherever it stands, and puts it back on replay; see
   * {@link Redaction#secret}.
   */
  public CassetteSettings redact(String name, String value) {
    return redaction(how -> how.secret(name, value));
  }

  /** Alters each exchange before it is redacted and kept. Several alter one after the other. */
  public CassetteSettings altered(UnaryOperator<Exchange> alteration) {
    requireGiven("altered", alteration);
    CassetteSettings changed = new CassetteSettings(this);
    List<UnaryOperator<Exchange>> all = new ArrayList<>(alterations);
    all.add(alteration);
    changed.alterations = List.copyOf(all);
    return changed;
  }

  /** Answers come after as long as they took when they were recorded; by default at once. */
  public CassetteSettings asRecorded() {
    return asRecorded(1);
  }

  /**
   * As {@link #asRecorded()}, the times multiplied by a factor.
   *
   * @throws IllegalArgumentException if it is negative, or no number
   */
  public CassetteSettings asRecorded(double factor) {
    if (!(factor >= 0) || Double.isInfinite(factor)) {
      throw new IllegalArgumentException(
          "asRecorded(factor) takes a number from 0, not " + factor + ".");
    }
    CassetteSettings changed = new CassetteSettings(this);
    changed.speed = factor;
    return changed;
  }

  /**
   * Warns where it was recorded longer ago than this.
   *
   * @throws IllegalArgumentException if the time is not positive
   */
  public CassetteSettings staleAfter(Duration age) {
    requireGiven("staleAfter", age);
    if (age.isNegative() || age.isZero()) {
      throw new IllegalArgumentException("staleAfter(age) takes a positive time, not " + age + ".");
    }
    CassetteSettings changed = new CassetteSettings(this);
    changed.freshFor = age;
    return changed;
  }

  /** A stale cassette is an error, not a warning. */
  public CassetteSettings failingWhenStale() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.failingWhenStale = true;
    return changed;
  }

  /** What was recorded is kept even where the test fails. */
  public CassetteSettings keepingOnFailure() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.keepingOnFailure = true;
    return changed;
  }

  /** {@link Recording#CREATE} and {@link Recording#EXTEND} record where {@code CI} is set, too. */
  public CassetteSettings recordingInCi() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.recordingInCi = true;
    return changed;
  }

  /**
   * Takes what differs from the recording before for what differs by nature: times, random
   * identifiers, signatures. To be said for a second recording of the same calls, by {@link
   * Recording#REWRITE}. The places stand in the cassette as {@code _varying}, where they can be
   * edited, and are not compared from then on.
   */
  public CassetteSettings learnVarying() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.learningVarying = true;
    return changed;
  }

  /** When it records. */
  public Recording recording() {
    return recording;
  }

  /** The hosts that it is for; empty if it is for all. */
  public List<String> hosts() {
    return hosts;
  }

  /** Which recording answers. */
  public Matching matching() {
    return matching;
  }

  /** What is taken out. */
  public Redaction redaction() {
    return redaction;
  }

  /** What alters exchanges before they are kept, in order. */
  public List<UnaryOperator<Exchange>> alterations() {
    return alterations;
  }

  /** The factor of recorded times; empty if answers come at once. */
  public OptionalDouble speed() {
    return speed == null ? OptionalDouble.empty() : OptionalDouble.of(speed);
  }

  /** How long it is fresh; empty if for ever. */
  public Optional<Duration> freshFor() {
    return Optional.ofNullable(freshFor);
  }

  /** Whether a stale one is an error. */
  public boolean isFailingWhenStale() {
    return failingWhenStale;
  }

  /** Whether what a failed test recorded is kept. */
  public boolean isKeepingOnFailure() {
    return keepingOnFailure;
  }

  /** Whether it records in CI, too. */
  public boolean isRecordingInCi() {
    return recordingInCi;
  }

  /** Whether it takes differences for what differs by nature. */
  public boolean isLearningVarying() {
    return learningVarying;
  }

  private static void requireGiven(String method, @Nullable Object argument) {
    if (argument == null) {
      throw new IllegalArgumentException(
          "CassetteSettings." + method + "(...) was given null, or returned it.");
    }
  }
}
