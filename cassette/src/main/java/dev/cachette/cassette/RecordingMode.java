// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

/**
 * When a cassette records.
 *
 * <p>If the environment variable {@code CI} is set to anything but {@code false}, {@link #CREATE}
 * and {@link #EXTEND} behave like {@link #REPLAY}, unless overridden for one run: by the system
 * property {@code cachette.recording} or the environment variable {@code CACHETTE_RECORDING}, with
 * one of these names.
 */
public enum RecordingMode {
  /** Record if there is no file yet, otherwise replay. The default. */
  CREATE,
  /** Never use the network. A missing file is an error. */
  REPLAY,
  /** Replay what is recorded, and record new requests. */
  EXTEND,
  /** Record everything again. */
  REWRITE
}
