package dev.cachette;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Recording;
import dev.cachette.internal.cassette.InPlay;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Modes;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.Recordings;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.stub.ScopeReport;
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

/** Puts cassettes in, and writes what was recorded when their scope ends. */
final class Cassettes {

  private static final String VERSION =
      Optional.ofNullable(Cassettes.class.getPackage().getImplementationVersion()).orElse("dev");

  private final Consumer<String> warning;
  private final Map<InPlay, CassetteFile> files = new ConcurrentHashMap<>();
  private final AtomicReference<@Nullable CassetteFile> retired = new AtomicReference<>();

  Cassettes(Consumer<String> warning) {
    this.warning = warning;
  }

  /**
   * A cassette, ready to be put in.
   *
   * @throws CassetteException if it cannot be read, is stale and must not be, or is missing and is
   *     not to be recorded
   */
  InPlay open(String name, Path path, CassetteSettings settings) {
    CassetteFile file = new CassetteFile(path);
    Recording recording = recording(settings);
    boolean isThere = file.exists();
    if (!isThere && recording == Recording.REPLAY) {
      throw missing(name, file, settings.recording());
    }
    Recordings known = file.open();
    try {
      boolean replays = recording == Recording.REPLAY || recording == Recording.CREATE && isThere;
      InPlay cassette = new InPlay(name, settings, replays ? Recording.REPLAY : recording, known);
      checkAge(cassette);
      files.put(cassette, file);
      return cassette;
    } catch (RuntimeException refused) {
      file.close();
      throw refused;
    }
  }

  /**
   * Notes that a cassette was read again. Its file is closed only when the next one is: calls may
   * still be answered from it.
   */
  void retire(InPlay old) {
    CassetteFile last = retired.getAndSet(files.remove(old));
    if (last != null) {
      last.close();
    }
  }

  /** What a scope that ends has recorded is written, unless the test has failed. */
  ScopeReport close(ScopeReport report, boolean failed) {
    ScopeReport said = report;
    for (InPlay cassette : report.cassettes()) {
      try (CassetteFile file = files.remove(cassette)) {
        if (failed) {
          cassette.discard();
        }
        if (file != null && cassette.isToBeKept() && cassette.hasRecorded()) {
          save(cassette, file);
        }
      } catch (RuntimeException notWritten) {
        said = said.and(notWritten);
      }
    }
    return said;
  }

  private void save(InPlay cassette, CassetteFile file) {
    List<Exchange> recorded = cassette.finished();
    boolean rewriting = cassette.recording() == Recording.REWRITE;
    Varying varying = Varying.of(cassette.known());
    if (cassette.settings().isLearningVarying()) {
      varying = varying.learn(cassette.known(), recorded);
    }
    Instant now = Instant.now();
    if (rewriting && !cassette.known().isEmpty()) {
      warnOfDrift(cassette, new Cassette(cassette.name(), Optional.of(now), recorded), varying);
    }
    file.save(new Merge(cassette.known(), recorded, rewriting, varying), now, VERSION);
  }

  private void warnOfDrift(InPlay cassette, Cassette recorded, Varying varying) {
    Matching matching = varying.ignoredBy(cassette.settings().matching());
    Drift drift = cassette.before().compareWith(recorded, matching);
    if (!drift.isNone()) {
      warning.accept("Recorded again: " + drift);
    }
  }

  private static Recording recording(CassetteSettings settings) {
    return Modes.of(
        settings.recording(),
        settings.isRecordingInCi(),
        Optional.ofNullable(System.getProperty(Modes.PROPERTY)),
        Optional.ofNullable(System.getenv(Modes.VARIABLE)),
        Optional.ofNullable(System.getenv("CI")));
  }

  private static CassetteException missing(String name, CassetteFile file, Recording chosen) {
    String reason =
        chosen == Recording.REPLAY
            ? ""
            : chosen + " is REPLAY here, because CI is set or an override says so. ";
    return new CassetteException(
        String.format(
            "There is no cassette \"%s\" to replay: %s is missing.\n"
                + "%sMend: record it once where the network can be reached, with "
                + "-D%s=%s, and commit the file.",
            name, file.shown(), reason, Modes.PROPERTY, Recording.CREATE));
  }

  private void checkAge(InPlay cassette) {
    Optional<Duration> freshFor = cassette.settings().freshFor();
    if (freshFor.isEmpty() || cassette.recording() != Recording.REPLAY) {
      return;
    }
    // Not before it is needed: a file of another program does not say it in one place.
    Optional<Instant> recorded = RecordedAt.of(cassette.known());
    if (recorded.isEmpty()) {
      return;
    }
    Duration age = Duration.between(recorded.get(), Instant.now());
    if (age.compareTo(freshFor.get()) > 0) {
      String said =
          String.format(
              "The cassette \"%s\" was recorded at %s, %d days ago; it is stale after %d days.\n"
                  + "Mend: record it again, with -D%s=%s, and look at what has changed.",
              cassette.name(),
              recorded.get(),
              age.toDays(),
              freshFor.get().toDays(),
              Modes.PROPERTY,
              Recording.REWRITE);
      if (cassette.settings().isFailingWhenStale()) {
        throw new CassetteException(said);
      }
      warning.accept(said);
    }
  }

  /** Those that are still in play. */
  List<InPlay> open() {
    return List.copyOf(files.keySet());
  }
}
