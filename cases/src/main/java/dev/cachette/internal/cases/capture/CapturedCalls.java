// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.file.CaseName;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * The captured calls: each incoming one with its outgoing ones, and the cases that become of them.
 * A case is written, on a thread of its own, soon after it has changed, so that a process that is
 * killed has lost little that was finished; and all of them at the end, since a late one may reveal
 * a secret of the others.
 */
public final class CapturedCalls implements AutoCloseable {

  private static final long QUIET_MILLIS = 50;
  private static final long LONGEST_MILLIS = 500;
  private static final long PATIENCE_MILLIS = 2_000;

  private final CaseWriter writer;
  private final Sessions sessions;
  private final Consumer<CapturedCase> listener;
  private final Thread thread = new Thread(this::writeAlways, "cachette-cases");

  private final Map<Long, Draft> drafts = new LinkedHashMap<>();
  private final Map<Long, CapturedCase> cases = new LinkedHashMap<>();
  private final CapturedCase background = new CapturedCase(0, Optional.of(Case.BACKGROUND));

  /** By the number of an incoming call. */
  private final Map<Long, CapturedCase> caseOf = new HashMap<>();

  /** Those that have changed since they were written. */
  private final Set<CapturedCase> changed = new LinkedHashSet<>();

  /** Run before the next one is written, such as to give it another name. */
  private final List<Runnable> commands = new ArrayList<>();

  private Optional<RuntimeException> failure = Optional.empty();
  private int changes;
  private volatile boolean finished;
  private boolean closed;

  /**
   * Begins to capture into a folder.
   *
   * @param listener receives each case that was written
   * @throws CassetteException if a file in the folder is not one of a case
   */
  public CapturedCalls(
      Path folder, Redaction redaction, Sessions sessions, Consumer<CapturedCase> listener) {
    this.writer = new CaseWriter(folder, redaction);
    this.sessions = sessions;
    this.listener = listener;
    Draft ofNone = new Draft(0);
    drafts.put(0L, ofNone);
    background.add(ofNone);
    caseOf.put(0L, background);
    thread.setDaemon(true);
    thread.start();
  }

  /**
   * Begins with an incoming call.
   *
   * @param number its number, from 1
   * @param name the name that the caller has given to its case
   */
  void begin(long number, Optional<String> name) {
    synchronized (this) {
      drafts.put(number, new Draft(number));
    }
    name.map(CaseName::given).ifPresent(it -> sessions.name(number, it));
  }

  /** Begins with the repetition of an incoming call, which is no case. */
  synchronized void repeat(long number, long original) {
    Draft again = new Draft(number);
    drafts.put(number, again);
    drafts.get(original).repeatedBy(again);
    Optional.ofNullable(caseOf.get(original)).ifPresent(it -> caseOf.put(number, it));
  }

  /**
   * Waits a moment for outgoing calls that have begun, but for those without an incoming one. Calls
   * that end later are cut off, and not kept.
   */
  public synchronized void finish() {
    long end = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(PATIENCE_MILLIS);
    try {
      while (isUnfinished() && System.nanoTime() < end) {
        wait(QUIET_MILLIS);
      }
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
    finished = true;
  }

  private boolean isUnfinished() {
    return drafts.values().stream().anyMatch(it -> it.number() != 0 && it.isUnfinished());
  }

  /** Ends an incoming call. */
  void end(long number, Exchange exchange) {
    if (finished) {
      return;
    }
    Draft draft = draft(number);
    draft.end(exchange);
    Sessions.Place place = sessions.place(number, exchange);
    synchronized (this) {
      CapturedCase captured =
          cases.computeIfAbsent(place.caseNumber(), it -> new CapturedCase(it, place.givenName()));
      captured.add(draft);
      caseOf.put(number, captured);
      changed(captured);
    }
  }

  /** Ends an incoming call that the application has not answered: it is no case. */
  synchronized void abandon(long number) {
    drafts.remove(number);
  }

  /** Adds incoming calls that were captured elsewhere, in their order. */
  public void importAll(List<Exchange> exchanges) {
    long number = 0;
    for (Exchange exchange : exchanges) {
      number++;
      begin(number, Optional.empty());
      end(number, exchange);
    }
  }

  /** Ends the repetition of an incoming call. */
  synchronized void endRepeated(long number, long original, Exchange exchange) {
    drafts.get(number).end(exchange);
    Optional.ofNullable(caseOf.get(original)).ifPresent(this::changed);
  }

  private synchronized Draft draft(long number) {
    return drafts.get(number);
  }

  /**
   * Begins with an outgoing call of an incoming one; of none if the number is 0. Returns what ends
   * it.
   */
  synchronized Consumer<Exchange> beginOutgoing(long number) {
    Draft draft = drafts.getOrDefault(number, drafts.get(0L));
    Draft.Outgoing begun = draft.begin();
    return exchange -> {
      if (!finished) {
        draft.end(begun, exchange);
        synchronized (this) {
          caseOf(draft).ifPresent(this::changed);
        }
      }
    };
  }

  /** Returns the case of a draft; empty while its incoming call is not complete. */
  private Optional<CapturedCase> caseOf(Draft draft) {
    return Optional.ofNullable(caseOf.get(draft.number()));
  }

  /** Returns the cases, in the order of their numbers. */
  public synchronized List<CapturedCase> cases() {
    List<CapturedCase> all = new ArrayList<>(cases.values());
    if (!background.drafts().get(0).outgoing().isEmpty()) {
      all.add(background);
    }
    return all;
  }

  /**
   * Gives a case another name.
   *
   * @throws IllegalArgumentException if there is no such case, or the name has no letter or digit
   */
  public void rename(long number, String name) {
    String given = CaseName.given(name);
    change(number, captured -> writer.rename(captured, given));
  }

  /**
   * Removes a case.
   *
   * @throws IllegalArgumentException if there is no such case
   */
  public void drop(long number) {
    change(
        number,
        captured -> {
          captured.drop();
          writer.remove(captured);
        });
  }

  /**
   * Marks a place in the responses of the application as varying.
   *
   * @throws IllegalArgumentException if there is no such case, or the place is malformed
   */
  public void mark(long number, String place) {
    find(number).mark(place);
    change(number, captured -> {});
  }

  private void change(long number, Consumer<CapturedCase> command) {
    CapturedCase captured = find(number);
    synchronized (this) {
      commands.add(() -> command.accept(captured));
      changed(captured);
    }
  }

  private CapturedCase find(long number) {
    return cases().stream()
        .filter(it -> it.number() == number && !it.isDropped())
        .findFirst()
        .orElseThrow(
            () -> new IllegalArgumentException("There is no case with the number " + number + "."));
  }

  private void changed(CapturedCase captured) {
    changed.add(captured);
    changes++;
    notifyAll();
  }

  private void writeAlways() {
    try {
      for (Work work = next(); !work.isLast; work = next()) {
        work.commands.forEach(Runnable::run);
        work.changed.forEach(this::write);
      }
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    } catch (RuntimeException unwritable) {
      synchronized (this) {
        failure = Optional.of(unwritable);
      }
    }
  }

  private record Work(List<Runnable> commands, List<CapturedCase> changed, boolean isLast) {}

  /** Waits for changes, and then for a moment without any: calls are not to wait for this. */
  private synchronized Work next() throws InterruptedException {
    while (changed.isEmpty() && !closed) {
      wait();
    }
    long end = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(LONGEST_MILLIS);
    int before = -1;
    while (!closed && changes != before && System.nanoTime() < end) {
      before = changes;
      wait(QUIET_MILLIS);
    }
    Work work = new Work(List.copyOf(commands), List.copyOf(changed), changed.isEmpty());
    commands.clear();
    changed.clear();
    return work;
  }

  private void write(CapturedCase captured) {
    if (!captured.isDropped() && !captured.drafts().isEmpty()) {
      writer.write(captured);
      listener.accept(captured);
    }
  }

  /**
   * Ends it, and writes all cases once more.
   *
   * @throws CassetteException if one cannot be written
   */
  @Override
  public void close() {
    synchronized (this) {
      if (closed) {
        return;
      }
      closed = true;
      notifyAll();
    }
    try {
      thread.join();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
    failure.ifPresent(
        it -> {
          throw it;
        });
    List<CapturedCase> wanted = cases().stream().filter(it -> !it.isDropped()).toList();
    wanted.forEach(writer::write);
    writer.markCounters(wanted);
  }
}
