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

/** Reloads files after a change; keeps the previous version if they are invalid. */
final class Reloading {

  private static final long MILLIS = 300;

  private final Output output;
  private final List<Watched> watched = new ArrayList<>();

  Reloading(Output output) {
    this.output = output;
  }

  /**
   * Watches files that belong together.
   *
   * @param files returns them; may differ after each reload
   * @param reload reads all of them again; returns what was read
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

  /** Files that are reloaded together. */
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
        output.remark("reloaded: " + read);
      } catch (StubFileException wrong) {
        output.remark("reload failed, the previous version stays in use:\n" + wrong.getMessage());
      } catch (RuntimeException failed) {
        output.remark("reload failed, the previous version stays in use: " + Failure.line(failed));
      }
    }

    /** Returns the modification time and size of each file. */
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
