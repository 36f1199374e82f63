package dev.cachette.cli;

import dev.cachette.StubFiles;
import dev.cachette.stubfile.StubFileException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/** Reads stub files again when one of them has changed; keeps what it has where they are wrong. */
final class Reloading {

  private static final long MILLIS = 300;

  private final StubFiles files;
  private final Output output;
  private Map<Path, String> seen;

  Reloading(StubFiles files, Output output) {
    this.files = files;
    this.output = output;
    this.seen = states();
  }

  void start() {
    ScheduledExecutorService timer =
        Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "cachette-reload");
              thread.setDaemon(true);
              return thread;
            });
    timer.scheduleWithFixedDelay(this::look, MILLIS, MILLIS, TimeUnit.MILLISECONDS);
  }

  private void look() {
    Map<Path, String> now = states();
    if (now.equals(seen)) {
      return;
    }
    seen = now;
    try {
      files.reload();
      seen = states();
      output.remark("read again: " + files.stubs().size() + " stubs");
    } catch (StubFileException wrong) {
      output.remark("not read again, what was read before stays:\n" + wrong.getMessage());
    } catch (RuntimeException failed) {
      output.remark("not read again, what was read before stays: " + Failure.line(failed));
    }
  }

  /** When each file was changed, and how long it is. */
  private Map<Path, String> states() {
    Map<Path, String> states = new HashMap<>();
    for (Path file : files.files()) {
      try {
        states.put(file, Files.getLastModifiedTime(file) + " " + Files.size(file));
      } catch (IOException gone) {
        states.put(file, "gone");
      }
    }
    return states;
  }
}
