package dev.cachette.internal.cassette;

import dev.cachette.cassette.Recording;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What a cassette does about the network, all things considered. */
public final class Modes {

  /** The system property that overrides what tests say, for one run. */
  public static final String PROPERTY = "cachette.recording";

  /** The environment variable that does. */
  public static final String VARIABLE = "CACHETTE_RECORDING";

  private Modes() {}

  /**
   * What holds for this run: the property, else the variable, else what the test says; which in CI
   * does not record unless it says that, too.
   *
   * @param ci the value of the environment's {@code CI}
   * @throws IllegalArgumentException if an override is no recording
   */
  public static Recording of(
      Recording chosen,
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
    return inCi && !alsoInCi && chosen != Recording.REWRITE ? Recording.REPLAY : chosen;
  }

  private static Recording named(String source, String name) {
    try {
      return Recording.valueOf(name.strip().toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException unknown) {
      throw new IllegalArgumentException(
          String.format(
              "%s is \"%s\"; it can be one of %s.",
              source, name, Arrays.toString(Recording.values())),
          unknown);
    }
  }
}
