package dev.cachette;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Recording;
import dev.cachette.internal.cassette.InPlay;
import java.nio.file.Path;

/**
 * A cassette that answers calls, or records them, until its scope ends. Made by {@link
 * Cachette#cassette(String)}. May be used from any thread.
 */
public final class CassetteInPlay {

  private final Session session;
  private final Path file;
  private volatile InPlay cassette;

  CassetteInPlay(Session session, InPlay cassette, Path file) {
    this.session = session;
    this.cassette = cassette;
    this.file = file;
  }

  /** Its name: {@code harbour/arrival}. */
  public String name() {
    return cassette.name();
  }

  /** Where it is, or will be. */
  public Path file() {
    return file;
  }

  /** How it was asked to behave. */
  public CassetteSettings settings() {
    return cassette.settings();
  }

  /**
   * What it does about the network, all things considered: a {@link Recording#CREATE} whose file is
   * there is a {@link Recording#REPLAY}.
   */
  public Recording recording() {
    return cassette.recording();
  }

  /** What was on it when it was put in; nothing is of what it has recorded since. */
  public Cassette recorded() {
    return cassette.before();
  }

  /**
   * Reads the file again, as where it was changed; the recordings begin with their first turn.
   *
   * @throws dev.cachette.cassette.CassetteException if it cannot be read now; what was read before
   *     stays in play
   * @throws IllegalStateException if it records
   */
  public void reload() {
    if (cassette.records()) {
      throw new IllegalStateException(
          "The cassette \"" + name() + "\" records; only one that replays is read again.");
    }
    cassette = session.reload(cassette, file);
  }

  /** Does not keep what it has recorded, as where the test has failed. */
  public void discard() {
    cassette.discard();
  }

  /** The name, and what it does. */
  @Override
  public String toString() {
    return cassette.toString();
  }
}
