// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.RecordingMode;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** Determines the recording mode of a run. */
public final class RecordingModes {

  /** The system property that overrides the mode of tests, for one run. */
  public static final String PROPERTY = "cachette.recording";

  /** The environment variable that does the same. */
  public static final String VARIABLE = "CACHETTE_RECORDING";

  private RecordingModes() {}

  /**
   * Returns the mode of this run: the property, else the variable, else the mode of the test, which
   * does not record in CI unless its settings allow it.
   *
   * @param ci the value of the environment variable {@code CI}
   * @throws IllegalArgumentException if an override is not a recording mode
   */
  public static RecordingMode of(
      RecordingMode chosen,
      boolean alsoInCi,
      Optional<String> property,
      Optional<String> variable,
      Optional<String> ci) {
    if (property.filter(it -> !it.isBlank()).isPresent()) {
      return named("The system property " + PROPERTY, property.get());
    }
    if (variable.filter(it -> !it.isBlank()).isPresent()) {
      return named("The environment variable " + VARIABLE, variable.get());
    }
    boolean inCi = ci.filter(it -> !it.isBlank() && !it.equalsIgnoreCase("false")).isPresent();
    return inCi && !alsoInCi && chosen != RecordingMode.REWRITE ? RecordingMode.REPLAY : chosen;
  }

  private static RecordingMode named(String source, String name) {
    try {
      return RecordingMode.valueOf(name.strip().toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException unknown) {
      throw new IllegalArgumentException(
          String.format(
              "%s is \"%s\"; allowed: %s.", source, name, Arrays.toString(RecordingMode.values())),
          unknown);
    }
  }
}
