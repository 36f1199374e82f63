// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.util.Arrays;
import java.util.Objects;

/** Counts what only an agent can see. */
public final class Loaders {

  private Loaders() {}

  /** Returns how many class loaders have loaded a class that is still there. */
  public static long count() {
    return Arrays.stream(InstrumentationSource.find().getAllLoadedClasses())
        .map(type -> type.getClassLoader())
        .filter(Objects::nonNull)
        .distinct()
        .count();
  }
}
