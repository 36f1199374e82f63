package dev.cachette.report;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Writes what happens in this JVM to a file, a JSON object a line, on a thread of its own: nothing
 * waits for it, unless it is far behind. What is written survives a crash of the JVM. Thread-safe.
 */
final class Journal {

  /** What there is nothing to write about. */
  static final Map<String, Object> NOTHING = Map.of();

  /** So far may it be behind; then calls wait, and do not fill the memory. */
  private static final int MOST_WAITING = 10_000;

  private static final int PATIENCE_SECONDS = 20;

  private final BlockingQueue<Supplier<Map<String, Object>>> waiting =
      new ArrayBlockingQueue<>(MOST_WAITING);
  private final ObjectMapper mapper = new ObjectMapper();
  private final BufferedWriter file;
  private final Thread writer;
  private volatile boolean over;
  private volatile @Nullable IOException failure;

  Journal(Path path) throws IOException {
    this.file = Files.newBufferedWriter(path);
    this.writer = new Thread(this::work, "cachette-report");
    writer.setDaemon(true);
    writer.start();
  }

  /** Writes an event, which is described later, on another thread. */
  void write(Supplier<Map<String, Object>> event) {
    if (over || failure != null) {
      return;
    }
    try {
      waiting.put(event);
    } catch (InterruptedException interrupted) {
      // The caller is being stopped; one event is lost, its interruption must not be.
      Thread.currentThread().interrupt();
    }
  }

  private void work() {
    try (file) {
      while (true) {
        Supplier<Map<String, Object>> event = waiting.poll();
        if (event == null) {
          file.flush();
          event = next();
        }
        if (event == null) {
          return;
        }
        write(described(event));
      }
    } catch (IOException unwritable) {
      failure = unwritable;
      waiting.clear();
    }
  }

  /** Returns null when all is written. */
  private @Nullable Supplier<Map<String, Object>> next() {
    try {
      Supplier<Map<String, Object>> event = null;
      while (event == null && !(over && waiting.isEmpty())) {
        event = waiting.poll(100, TimeUnit.MILLISECONDS);
      }
      return event;
    } catch (InterruptedException stopped) {
      return null;
    }
  }

  /** One event that cannot be described must not end the journal. */
  private static Map<String, Object> described(Supplier<Map<String, Object>> event) {
    try {
      return event.get();
    } catch (RuntimeException failed) {
      return Map.of("event", "lost", "why", failed.toString());
    }
  }

  private void write(Map<String, Object> event) throws IOException {
    if (event.isEmpty()) {
      return;
    }
    try {
      file.write(mapper.writeValueAsString(event));
    } catch (JsonProcessingException impossible) {
      throw new IllegalStateException(impossible);
    }
    file.write('\n');
  }

  /**
   * Writes what is waiting, and ends.
   *
   * @throws IOException if something could not be written
   */
  void close() throws IOException {
    over = true;
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
