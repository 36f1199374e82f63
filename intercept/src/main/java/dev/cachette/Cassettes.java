// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.RecordingModes;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.engine.ScopeReport;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Activates cassettes, and writes what was recorded when their scope ends. */
final class Cassettes {

  private static final String VERSION =
      Optional.ofNullable(Cassettes.class.getPackage().getImplementationVersion()).orElse("dev");

  private final Consumer<String> warning;
  private final Map<LoadedCassette, CassetteFile> files = new ConcurrentHashMap<>();
  private final Map<LoadedCassette, ContinuousRecording> recordings = new ConcurrentHashMap<>();
  private final AtomicReference<@Nullable CassetteFile> retired = new AtomicReference<>();

  Cassettes(Consumer<String> warning) {
    this.warning = warning;
  }

  /**
   * Returns a cassette, ready to use.
   *
   * @throws CassetteException if it cannot be read, if it is stale and that is an error, or if it
   *     is missing and must not be recorded
   */
  LoadedCassette open(String name, Path path, CassetteSettings settings) {
    CassetteFile file = new CassetteFile(path);
    RecordingMode recording = recording(settings);
    boolean isThere = file.exists();
    if (!isThere && recording == RecordingMode.REPLAY) {
      throw missing(name, file, settings.mode());
    }
    RecordedExchanges known = file.open();
    known.skipped().ifPresent(warning);
    try {
      boolean replays =
          recording == RecordingMode.REPLAY || recording == RecordingMode.CREATE && isThere;
      LoadedCassette cassette =
          new LoadedCassette(name, settings, replays ? RecordingMode.REPLAY : recording, known);
      checkAge(cassette);
      files.put(cassette, file);
      if (cassette.records() && CassetteInternals.isOfCommandLine(settings)) {
        recordings.put(cassette, new ContinuousRecording(cassette, file, VERSION, warning));
      }
      return cassette;
    } catch (RuntimeException refused) {
      file.close();
      throw refused;
    }
  }

  /**
   * Marks a cassette as reloaded. Its file is closed with the next one: calls may still be answered
   * from it.
   */
  void retire(LoadedCassette old) {
    CassetteFile last = retired.getAndSet(files.remove(old));
    if (last != null) {
      last.close();
    }
  }

  /** Writes what the cassettes of a scope have recorded, unless the test has failed. */
  ScopeReport close(ScopeReport report, boolean failed) {
    ScopeReport said = report;
    for (LoadedCassette cassette : report.cassettes()) {
      try (CassetteFile file = files.remove(cassette)) {
        if (failed) {
          cassette.discard();
        }
        cassette.stopArriving();
        ContinuousRecording continuous = recordings.remove(cassette);
        List<String> written = continuous == null ? List.of() : continuous.stop();
        boolean isDone = continuous != null && continuous.hasWritten(cassette.finished());
        if (file != null && cassette.isToBeKept() && cassette.hasRecorded()) {
          save(cassette, file, written, isDone);
        }
      } catch (RuntimeException notWritten) {
        said = said.and(notWritten);
      }
    }
    return said;
  }

  /**
   * Writes what was recorded.
   *
   * @param written digests of entries that the recording has written already
   * @param isDone whether all is written already, unless something is replaced at the end
   */
  private void save(
      LoadedCassette cassette, CassetteFile file, List<String> written, boolean isDone) {
    List<Exchange> recorded = cassette.finished();
    cassette.warning().ifPresent(warning);
    boolean rewriting = cassette.mode() == RecordingMode.REWRITE;
    Varying varying = Varying.of(cassette.known());
    if (cassette.settings().isLearningVarying()) {
      varying = varying.learn(cassette.known(), recorded);
    }
    Instant now = Instant.now();
    if (rewriting && !cassette.known().isEmpty()) {
      warnOfDrift(
          cassette, new CassetteContent(cassette.name(), Optional.of(now), recorded), varying);
    }
    if (!isDone || rewriting || cassette.settings().isLearningVarying()) {
      Merge merge = new Merge(cassette.known(), recorded, rewriting, varying).replacing(written);
      file.save(merge, now, VERSION);
    }
    cassette
        .refusal()
        .ifPresent(
            left -> {
              throw left;
            });
  }

  private void warnOfDrift(LoadedCassette cassette, CassetteContent recorded, Varying varying) {
    Matching matching = varying.ignoredBy(cassette.settings().matching());
    Drift drift = cassette.before().compareWith(recorded, matching);
    if (!drift.isNone()) {
      warning.accept("Recorded again: " + drift);
    }
  }

  private static RecordingMode recording(CassetteSettings settings) {
    return RecordingModes.of(
        settings.mode(),
        settings.isRecordingInCi(),
        Optional.ofNullable(System.getProperty(RecordingModes.PROPERTY)),
        Optional.ofNullable(System.getenv(RecordingModes.VARIABLE)),
        Optional.ofNullable(System.getenv("CI")));
  }

  private static CassetteException missing(String name, CassetteFile file, RecordingMode chosen) {
    String reason =
        chosen == RecordingMode.REPLAY
            ? ""
            : chosen + " is REPLAY here, because CI is set or an override says so. ";
    return new CassetteException(
        String.format(
            "There is no cassette \"%s\" to replay: %s is missing.\n"
                + "%sFix: record it once with network access, with -D%s=%s, and commit the file.",
            name, file.shown(), reason, RecordingModes.PROPERTY, RecordingMode.CREATE));
  }

  private void checkAge(LoadedCassette cassette) {
    Optional<Duration> freshFor = cassette.settings().staleAfter();
    if (freshFor.isEmpty() || cassette.mode() != RecordingMode.REPLAY) {
      return;
    }
    // Read on demand only: files from other tools do not have it in one place.
    Optional<Instant> recorded = RecordedAt.of(cassette.known());
    if (recorded.isEmpty()) {
      return;
    }
    Duration age = Duration.between(recorded.get(), Instant.now());
    if (age.compareTo(freshFor.get()) > 0) {
      String said =
          String.format(
              "The cassette \"%s\" was recorded at %s, %d days ago; it is stale after %d days.\n"
                  + "Fix: record it again, with -D%s=%s, and review the changes.",
              cassette.name(),
              recorded.get(),
              age.toDays(),
              freshFor.get().toDays(),
              RecordingModes.PROPERTY,
              RecordingMode.REWRITE);
      if (cassette.settings().isFailingWhenStale()) {
        throw new CassetteException(said);
      }
      warning.accept(said);
    }
  }

  /** Returns the cassettes that are still active. */
  List<LoadedCassette> open() {
    return List.copyOf(files.keySet());
  }
}
