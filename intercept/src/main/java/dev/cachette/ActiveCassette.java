// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.internal.cassette.LoadedCassette;
import java.nio.file.Path;

/**
 * A cassette that answers or records calls until its scope ends. Created by {@link
 * Cachette#cassette(String)}. Thread-safe.
 */
public final class ActiveCassette {

  private final Session session;
  private final Path file;
  private volatile LoadedCassette cassette;

  ActiveCassette(Session session, LoadedCassette cassette, Path file) {
    this.session = session;
    this.cassette = cassette;
    this.file = file;
  }

  /** Returns its name: {@code harbour/arrival}. */
  public String name() {
    return cassette.name();
  }

  /** Returns its file, which may not exist yet. */
  public Path file() {
    return file;
  }

  /** Returns its settings. */
  public CassetteSettings settings() {
    return cassette.settings();
  }

  /**
   * Returns its mode in this run: {@link RecordingMode#CREATE} becomes {@link RecordingMode#REPLAY}
   * if the file exists.
   */
  public RecordingMode mode() {
    return cassette.mode();
  }

  /** Returns its content when it was activated, without what it has recorded since. */
  public CassetteContent recorded() {
    return cassette.before();
  }

  /**
   * Reads the file again, after a change; replay starts again with the first exchange.
   *
   * @throws dev.cachette.cassette.CassetteException if it cannot be read; the previous content
   *     stays in use
   * @throws IllegalStateException if it records
   */
  public void reload() {
    if (cassette.records()) {
      throw new IllegalStateException(
          "The cassette \"" + name() + "\" records; only one that replays can be reloaded.");
    }
    cassette = session.reload(cassette, file);
  }

  /** Discards what it has recorded, for example because the test has failed. */
  public void discard() {
    cassette.discard();
  }

  /** Returns its name and mode. */
  @Override
  public String toString() {
    return cassette.toString();
  }
}
