// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.cassette.Redaction;

/** The settings of a recording that someone has asked for, outside of tests. */
public final class RecordingSettings {

  private RecordingSettings() {}

  /**
   * Returns settings that write each exchange when it is finished, and keep it whatever fails.
   *
   * @param mode {@link RecordingMode#EXTEND} or {@link RecordingMode#REWRITE}
   * @param redaction the rules for secrets
   */
  public static CassetteSettings of(RecordingMode mode, Redaction redaction) {
    return CassetteInternals.ofCommandLine(
        CassetteSettings.defaults()
            .mode(mode)
            .recordingInCi()
            .keepingOnFailure()
            .redaction(any -> redaction));
  }
}
