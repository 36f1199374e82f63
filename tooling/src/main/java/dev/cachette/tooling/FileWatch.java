// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.text.Digests;
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
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Reloads files after a change of their content, within about half a second. Uses one daemon thread
 * until the JVM ends.
 */
public final class FileWatch {

  private static final long MILLIS = 150;

  private final Consumer<String> reloaded;
  private final Consumer<RuntimeException> failed;
  private final List<Watched> watched = new ArrayList<>();

  /**
   * Creates one that watches nothing yet.
   *
   * @param reloaded is told what was read
   * @param failed is told why reloading failed
   */
  public FileWatch(Consumer<String> reloaded, Consumer<RuntimeException> failed) {
    this.reloaded = reloaded;
    this.failed = failed;
  }

  /**
   * Watches files that belong together.
   *
   * @param files returns them; may differ after each reload
   * @param reload reads all of them again; returns what was read
   */
  public void watch(Supplier<List<Path>> files, Supplier<String> reload) {
    watched.add(new Watched(files, reload));
  }

  /** Begins to look at the files. */
  public void start() {
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
        reloaded.accept(what);
      } catch (RuntimeException unreadable) {
        failed.accept(unreadable);
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
