package dev.cachette.cassette;

/**
 * When a cassette records.
 *
 * <p>Where the environment has {@code CI} set, to anything but {@code false}, {@link #CREATE} and
 * {@link #EXTEND} behave as {@link #REPLAY}, unless the override for one run says otherwise: the
 * system property {@code cachette.recording} or the environment variable {@code
 * CACHETTE_RECORDING}, with one of these names.
 */
public enum Recording {
  /** Record where there is no file yet, else replay. The default. */
  CREATE,
  /** Never touch the network. Where there is no file, that is an error. */
  REPLAY,
  /** Replay what is known, record what is new. */
  EXTEND,
  /** Record all of it again. */
  REWRITE
}
