// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.internal.match.HostPattern;
import dev.cachette.internal.misuse.Refusals;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * The settings of a cassette: how it records, replays and matches.
 *
 * <pre>{@code
 * net.cassette("harbour/arrival",
 *     CassetteSettings.defaults()
 *         .mode(RecordingMode.EXTEND)
 *         .hosts("tides.example", "berths.example")
 *         .matching(how -> how.ignoringQuery("requestId"))
 *         .redact("TIDES_KEY", key));
 * }</pre>
 *
 * <p>Immutable: every method with an argument returns new settings.
 */
public final class CassetteSettings {

  private static final CassetteSettings DEFAULTS = new CassetteSettings();

  private RecordingMode mode = RecordingMode.CREATE;
  private List<String> hosts = List.of();
  private Matching matching = Matching.byDefault();
  private Redaction redaction = Redaction.byDefault();
  private List<UnaryOperator<Exchange>> transformed = List.of();
  private @Nullable Double speed;
  private @Nullable Duration staleAfter;
  private boolean failingWhenStale;
  private boolean keepingOnFailure;
  private boolean recordingInCi;
  private boolean learningVarying;
  private boolean ofCommandLine;

  private CassetteSettings() {}

  private CassetteSettings(CassetteSettings other) {
    this.mode = other.mode;
    this.hosts = other.hosts;
    this.matching = other.matching;
    this.redaction = other.redaction;
    this.transformed = other.transformed;
    this.speed = other.speed;
    this.staleAfter = other.staleAfter;
    this.failingWhenStale = other.failingWhenStale;
    this.keepingOnFailure = other.keepingOnFailure;
    this.recordingInCi = other.recordingInCi;
    this.learningVarying = other.learningVarying;
    this.ofCommandLine = other.ofCommandLine;
  }

  /**
   * Returns the defaults: {@link RecordingMode#CREATE}; all hosts; method, URL and body are
   * compared; the usual secrets are redacted; answers come immediately; it never becomes stale;
   * exchanges of a failed test are discarded.
   */
  public static CassetteSettings defaults() {
    return DEFAULTS;
  }

  /** Sets when it records; {@link RecordingMode#CREATE} by default. */
  public CassetteSettings mode(RecordingMode choice) {
    requireGiven("mode", choice);
    CassetteSettings changed = new CassetteSettings(this);
    changed.mode = choice;
    return changed;
  }

  /**
   * Restricts it to calls to these hosts; calls to other hosts are left to other cassettes. By
   * default it is for all hosts.
   *
   * @param names hosts such as {@code tides.example}, {@code *.example}, {@code
   *     berths.example:8443}
   * @throws IllegalArgumentException if one is not a host
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

  /** Sets which recorded exchange answers a request; see {@link Matching}. */
  public CassetteSettings matching(UnaryOperator<Matching> change) {
    requireGiven("matching", change);
    CassetteSettings changed = new CassetteSettings(this);
    changed.matching = change.apply(matching);
    requireGiven("matching", changed.matching);
    return changed;
  }

  /** Sets what is redacted before anything is written; see {@link Redaction}. */
  public CassetteSettings redaction(UnaryOperator<Redaction> change) {
    requireGiven("redaction", change);
    CassetteSettings changed = new CassetteSettings(this);
    changed.redaction = change.apply(redaction);
    requireGiven("redaction", changed.redaction);
    return changed;
  }

  /**
   * Replaces a secret by {@code {{name}}} wherever it occurs, and fills it in again on replay; see
   * {@link Redaction#secret}.
   */
  public CassetteSettings redact(String name, String value) {
    return redaction(how -> how.secret(name, value));
  }

  /**
   * Transforms each exchange before it is redacted and stored. Several functions are applied in
   * order.
   */
  public CassetteSettings transformed(UnaryOperator<Exchange> alteration) {
    requireGiven("altered", alteration);
    CassetteSettings changed = new CassetteSettings(this);
    List<UnaryOperator<Exchange>> all = new ArrayList<>(transformed);
    all.add(alteration);
    changed.transformed = List.copyOf(all);
    return changed;
  }

  /** Replays answers with their recorded duration; by default they come immediately. */
  public CassetteSettings withRecordedTiming() {
    return withRecordedTiming(1);
  }

  /**
   * As {@link #withRecordedTiming()}, with durations multiplied by a factor.
   *
   * @throws IllegalArgumentException if it is negative, or not a number
   */
  public CassetteSettings withRecordedTiming(double factor) {
    if (!(factor >= 0) || Double.isInfinite(factor)) {
      throw Refusals.argument(
          "withRecordedTiming(factor) needs a number that is not negative, not " + factor + ".");
    }
    CassetteSettings changed = new CassetteSettings(this);
    changed.speed = factor;
    return changed;
  }

  /**
   * Warns if it was recorded longer ago than this.
   *
   * @throws IllegalArgumentException if the duration is not positive
   */
  public CassetteSettings staleAfter(Duration age) {
    requireGiven("staleAfter", age);
    if (age.isNegative() || age.isZero()) {
      throw Refusals.argument("staleAfter(age) needs a positive duration, not " + age + ".");
    }
    CassetteSettings changed = new CassetteSettings(this);
    changed.staleAfter = age;
    return changed;
  }

  /** Makes a stale cassette an error instead of a warning. */
  public CassetteSettings failingWhenStale() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.failingWhenStale = true;
    return changed;
  }

  /** Keeps what was recorded even if the test fails. */
  public CassetteSettings keepingOnFailure() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.keepingOnFailure = true;
    return changed;
  }

  /**
   * Lets {@link RecordingMode#CREATE} and {@link RecordingMode#EXTEND} record even if {@code CI} is
   * set.
   */
  public CassetteSettings recordingInCi() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.recordingInCi = true;
    return changed;
  }

  /**
   * Marks what differs from the previous recording as varying: times, random identifiers,
   * signatures. Use it for a second recording of the same calls, with {@link
   * RecordingMode#REWRITE}. The places are stored in the cassette as {@code _varying}, where you
   * can edit them, and are no longer compared.
   */
  public CassetteSettings learnVarying() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.learningVarying = true;
    return changed;
  }

  /** Returns when it records. */
  public RecordingMode mode() {
    return mode;
  }

  /** Returns the hosts that it is for; empty for all. */
  public List<String> hosts() {
    return hosts;
  }

  /** Returns which recorded exchange answers. */
  public Matching matching() {
    return matching;
  }

  /** Returns what is redacted. */
  public Redaction redaction() {
    return redaction;
  }

  /** Returns the functions that transform exchanges before they are stored, in order. */
  public List<UnaryOperator<Exchange>> transformed() {
    return transformed;
  }

  /** Returns the factor of recorded durations; empty if answers come immediately. */
  public OptionalDouble recordedTiming() {
    return speed == null ? OptionalDouble.empty() : OptionalDouble.of(speed);
  }

  /** Returns the age at which it becomes stale; empty for never. */
  public Optional<Duration> staleAfter() {
    return Optional.ofNullable(staleAfter);
  }

  /** Returns true if a stale cassette is an error. */
  public boolean isFailingWhenStale() {
    return failingWhenStale;
  }

  /** Returns true if what a failed test recorded is kept. */
  public boolean isKeepingOnFailure() {
    return keepingOnFailure;
  }

  /** Returns true if it records even if {@code CI} is set. */
  public boolean isRecordingInCi() {
    return recordingInCi;
  }

  /** Returns true if differences are marked as varying. */
  public boolean isLearningVarying() {
    return learningVarying;
  }

  /** Writes each exchange when it is finished, and gives advice in options of the command line. */
  CassetteSettings ofCommandLine() {
    CassetteSettings changed = new CassetteSettings(this);
    changed.ofCommandLine = true;
    return changed;
  }

  /** Returns true if the command line uses it. */
  boolean isOfCommandLine() {
    return ofCommandLine;
  }

  private static void requireGiven(String method, @Nullable Object argument) {
    if (argument == null) {
      throw Refusals.argument(
          "CassetteSettings." + method + "(...) was given null, or a function that returned null.");
    }
  }
}
