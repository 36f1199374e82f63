// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Writes what happens in this JVM to a file, a JSON object a line, on a thread of its own: nothing
 * waits for it, unless it is far behind. What is written survives a crash of the JVM. Thread-safe.
 */
final class Journal {

  /** So far may it be behind; then calls wait, and do not fill the memory. */
  private static final int MOST_WAITING = 10_000;

  private static final int PATIENCE_SECONDS = 20;

  /** How long it waits for more to write: to be woken for each call would cost the tests time. */
  private static final long MOMENT = TimeUnit.MILLISECONDS.toNanos(10);

  /** So many characters are kept, so that the report need not read them again. */
  private static final long MOST_KEPT = 30_000_000;

  /** A queue without locks; the hooks follow tasks through the blocking ones, which takes time. */
  private final Queue<Supplier<Line>> waiting = new ConcurrentLinkedQueue<>();

  private final AtomicInteger size = new AtomicInteger();
  private final ObjectMapper mapper = new ObjectMapper();
  private final BufferedWriter file;
  private final Thread writer;
  private volatile @Nullable JvmEvents written = new JvmEvents();
  private long kept;
  private volatile boolean over;
  private volatile @Nullable IOException failure;

  Journal(Path path) throws IOException {
    this.file = Files.newBufferedWriter(path);
    this.writer = new Thread(this::work, "cachette-report");
    writer.setDaemon(true);
    writer.start();
  }

  /** Writes an event, which is described later, on another thread. */
  void write(Supplier<Line> event) {
    while (size.get() >= MOST_WAITING && isWriting()) {
      LockSupport.parkNanos(MOMENT);
    }
    if (isWriting()) {
      size.incrementAndGet();
      waiting.add(event);
    }
  }

  private boolean isWriting() {
    return !over && failure == null;
  }

  private void work() {
    try (file) {
      while (!(over && waiting.isEmpty())) {
        for (Supplier<Line> each = waiting.poll(); each != null; each = waiting.poll()) {
          size.decrementAndGet();
          write(described(each));
        }
        file.flush();
        if (!over) {
          LockSupport.parkNanos(MOMENT);
        }
      }
    } catch (IOException unwritable) {
      failure = unwritable;
      waiting.clear();
    }
  }

  /** One event that cannot be described must not end the journal. */
  private static Line described(Supplier<Line> event) {
    try {
      return event.get();
    } catch (RuntimeException failed) {
      return Line.of(Map.of("event", "lost", "why", failed.toString()));
    }
  }

  private void write(Line line) throws IOException {
    if (line.event().isEmpty()) {
      return;
    }
    ObjectNode event = Nodes.of(line.event());
    List<String> further = new ArrayList<>();
    String head = json(event);
    file.write(head);
    for (Map<String, Object> each : line.further()) {
      String text = json(Nodes.of(each));
      file.write('\t');
      file.write(text);
      further.add(text);
    }
    file.write('\n');
    kept += head.length() + further.stream().mapToLong(String::length).sum();
    keep(event, further);
  }

  private void keep(ObjectNode event, List<String> further) {
    JvmEvents events = written;
    if (kept > MOST_KEPT) {
      written = null;
    } else if (events != null) {
      events.add(event, further);
    }
  }

  private String json(ObjectNode json) throws JsonProcessingException {
    return mapper.writeValueAsString(json);
  }

  /** Returns what was written, after {@link #close}; empty if it is too much for the memory. */
  Optional<JvmEvents> written() {
    return Optional.ofNullable(written);
  }

  /**
   * Writes what is waiting, and ends.
   *
   * @throws IOException if something could not be written
   */
  void close() throws IOException {
    over = true;
    LockSupport.unpark(writer);
    try {
      writer.join(TimeUnit.SECONDS.toMillis(PATIENCE_SECONDS));
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
    IOException failed = failure;
    if (failed != null) {
      throw failed;
    }
  }
}
