// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.internal.text.Digests;
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
import org.jspecify.annotations.Nullable;

/** Reloads files after a change; keeps the previous version if they are invalid. */
final class Reloading {

  private static final long MILLIS = 150;

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

  /**
   * Files that are reloaded together: when their content has changed, and was the same at two looks
   * in a row, so that no half of a file is read.
   */
  private final class Watched {

    private final Supplier<List<Path>> files;
    private final Supplier<String> reload;
    private Map<Path, State> read;
    private Map<Path, State> last;

    Watched(Supplier<List<Path>> files, Supplier<String> reload) {
      this.files = files;
      this.reload = reload;
      this.read = states(Map.of());
      this.last = read;
    }

    void look() {
      Map<Path, State> now = states(last);
      boolean isStable = now.equals(last);
      last = now;
      if (isStable && !contents(now).equals(contents(read))) {
        read = now;
        reload();
      }
    }

    private void reload() {
      try {
        String what = reload.get();
        // Files that were not part of it before.
        Map<Path, State> now = states(last);
        now.keySet().removeAll(read.keySet());
        read.putAll(now);
        read.keySet().retainAll(files.get());
        output.remark("reloaded: " + what);
      } catch (StubFileException wrong) {
        output.remark("reload failed, the previous version stays in use:\n" + wrong.getMessage());
      } catch (RuntimeException failed) {
        output.remark("reload failed, the previous version stays in use: " + Failure.line(failed));
      }
    }

    /** Returns the states of all files; the content is read only if it may have changed. */
    private Map<Path, State> states(Map<Path, State> before) {
      Map<Path, State> states = new HashMap<>();
      for (Path file : files.get()) {
        states.put(file, State.of(file, before.get(file)));
      }
      return states;
    }

    private static Map<Path, String> contents(Map<Path, State> states) {
      Map<Path, String> contents = new HashMap<>();
      states.forEach((file, state) -> contents.put(file, state.content()));
      return contents;
    }
  }

  /**
   * The state of a file.
   *
   * @param stamp its modification time and size
   * @param content a digest of its content
   */
  private record State(String stamp, String content) {

    static State of(Path file, @Nullable State before) {
      try {
        String stamp = Files.getLastModifiedTime(file) + " " + Files.size(file);
        return before != null && before.stamp.equals(stamp)
            ? before
            : new State(stamp, Digests.of(Files.readAllBytes(file)));
      } catch (IOException gone) {
        return new State("gone", "gone");
      }
    }
  }
}
