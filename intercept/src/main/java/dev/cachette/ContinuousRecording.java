// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.text.Digests;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * Writes a cassette while it is recorded, so that a process that is killed has lost no exchange
 * that was finished. Each time, the file is replaced atomically: what was recorded in the meantime
 * is added to it, without reading it again.
 */
final class ContinuousRecording implements LoadedCassette.Recorder {

  /** A caller waits at most this long for its exchange to be written. */
  private static final long PATIENCE_MILLIS = 2_000;

  /** Writing takes little time if it takes no longer. */
  private static final long LITTLE_MILLIS = 250;

  private final LoadedCassette cassette;
  private final CassetteFile file;
  private final String version;
  private final Consumer<String> warning;
  private final Thread thread = new Thread(this::run, "cachette-recording");

  /** Digests of the entries that it has written; only on the thread until it has ended. */
  private final List<String> digests = new ArrayList<>();

  private Optional<CassetteFile.Stamp> stamp = Optional.empty();

  /** The exchanges that it has written as a whole; empty once something was added. */
  private List<Exchange> whole = List.of();

  private boolean failing;

  /** The numbers of exchanges that are kept and written; guarded by this. */
  private long kept;

  private long written;
  private boolean stopped;

  ContinuousRecording(
      LoadedCassette cassette, CassetteFile file, String version, Consumer<String> warning) {
    this.cassette = cassette;
    this.file = file;
    this.version = version;
    this.warning = warning;
    cassette.recordedBy(this);
    thread.setDaemon(true);
    thread.start();
  }

  @Override
  public synchronized void kept() {
    kept++;
    notifyAll();
  }

  @Override
  public synchronized void awaitWritten() {
    long wanted = kept;
    long end = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(PATIENCE_MILLIS);
    try {
      for (long left = PATIENCE_MILLIS; written < wanted && left > 0 && !stopped; ) {
        wait(left);
        left = TimeUnit.NANOSECONDS.toMillis(end - System.nanoTime());
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  /**
   * Returns true if the file has these exchanges, in this order, as the end of the recording would
   * write them: it was written as a whole, and not changed since. To be called after {@link #stop}.
   */
  boolean hasWritten(List<Exchange> finished) {
    return finished.equals(whole) && stamp.filter(file::is).isPresent();
  }

  /** Ends it; returns digests of the entries that it has written. */
  List<String> stop() {
    synchronized (this) {
      stopped = true;
      notifyAll();
    }
    try {
      thread.join();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
    return digests;
  }

  private void run() {
    try {
      for (long target = next(); target > 0; target = next()) {
        long began = System.nanoTime();
        write();
        done(target);
        // A large file takes time: no more than half of it is spent on this.
        pause(System.nanoTime() - began);
      }
    } catch (InterruptedException stoppedByNobody) {
      Thread.currentThread().interrupt();
    }
  }

  /** Returns the number of exchanges to write; 0 if there will be no more. */
  private synchronized long next() throws InterruptedException {
    while (kept == written && !stopped) {
      wait();
    }
    return stopped ? 0 : kept;
  }

  private synchronized void done(long target) {
    written = target;
    notifyAll();
  }

  private synchronized void pause(long nanos) throws InterruptedException {
    if (!stopped && nanos > TimeUnit.MILLISECONDS.toNanos(LITTLE_MILLIS)) {
      wait(TimeUnit.NANOSECONDS.toMillis(nanos));
    }
  }

  private void write() {
    try {
      LoadedCassette.Growth growth = cassette.growth();
      stamp = growth.isAll() ? Optional.empty() : stamp.flatMap(known -> append(growth, known));
      if (stamp.isEmpty()) {
        rewrite(growth.isAll() ? growth : new LoadedCassette.Growth(cassette.finished(), true));
      }
      failing = false;
    } catch (CassetteException cannotNow) {
      // At the end, it is tried once more.
      if (!failing) {
        warning.accept(cannotNow.getMessage());
      }
      failing = true;
      stamp = Optional.empty();
    }
  }

  private Optional<CassetteFile.Stamp> append(
      LoadedCassette.Growth growth, CassetteFile.Stamp known) {
    List<String> added = growth.entries();
    Optional<CassetteFile.Stamp> now =
        file.append(LoadedCassette.following(added), cassette.fileEnd(), known);
    if (now.isPresent()) {
      whole = List.of();
      added.forEach(entry -> digests.add(Digests.of(entry)));
    }
    return now;
  }

  /** Old exchanges stay until the end, even if they are to be replaced: it may never come. */
  private void rewrite(LoadedCassette.Growth all) {
    Varying varying = Varying.of(cassette.known());
    Merge merge = new Merge(cassette.known(), all.exchanges(), false, varying).replacing(digests);
    stamp = Optional.of(file.save(merge, Instant.now(), version));
    whole = all.exchanges();
    digests.clear();
    all.entries().forEach(entry -> digests.add(Digests.of(entry)));
  }
}
