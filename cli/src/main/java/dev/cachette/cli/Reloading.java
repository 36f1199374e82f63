package dev.cachette.cli;

import dev.cachette.stubfile.StubFileException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;

/** Reads files again when one of them has changed; keeps what it has where they are wrong. */
final class Reloading {

  private static final long MILLIS = 300;

  private final Output output;
  private final List<Watched> watched = new ArrayList<>();

  Reloading(Output output) {
    this.output = output;
  }

  /**
   * Looks at files that belong together.
   *
   * @param files what they are, which may change when they are read
   * @param reload reads all of them again; answers what was read
   */
  void watch(Supplier<List<Path>> files, Supplier<String> reload) {
    watched.add(new Watched(files, reload));
  }

  void start() {
    ScheduledExecutorService timer =
        Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "cachette-reload");
              thread.setDaemon(true);
              return thread;
            });
    timer.scheduleWithFixedDelay(
        () -> watched.forEach(Watched::look), MILLIS, MILLIS, TimeUnit.MILLISECONDS);
  }

  /** Files that are read together. */
  private final class Watched {

    private final Supplier<List<Path>> files;
    private final Supplier<String> reload;
    private Map<Path, String> seen;

    Watched(Supplier<List<Path>> files, Supplier<String> reload) {
      this.files = files;
      this.reload = reload;
      this.seen = states();
    }

    void look() {
      Map<Path, String> now = states();
      if (now.equals(seen)) {
        return;
      }
      seen = now;
      try {
        String read = reload.get();
        seen = states();
        output.remark("read again: " + read);
      } catch (StubFileException wrong) {
        output.remark("not read again, what was read before stays:\n" + wrong.getMessage());
      } catch (RuntimeException failed) {
        output.remark("not read again, what was read before stays: " + Failure.line(failed));
      }
    }

    /** When each file was changed, and how long it is. */
    private Map<Path, String> states() {
      Map<Path, String> states = new HashMap<>();
      for (Path file : files.get()) {
        try {
          states.put(file, Files.getLastModifiedTime(file) + " " + Files.size(file));
        } catch (IOException gone) {
          states.put(file, "gone");
        }
      }
      return states;
    }
  }
}
