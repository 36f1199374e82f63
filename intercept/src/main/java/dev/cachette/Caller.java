// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.model.Place;
import java.util.Set;

/** Finds the line of user code that called Cachette. */
final class Caller {

  private static final Set<String> OURS =
      Set.of(
          Caller.class.getName(),
          Cachette.class.getName(),
          RestCollection.class.getName(),
          StubFiles.class.getName(),
          Stub.class.getName(),
          StubControl.class.getName());

  private Caller() {}

  static Place place() {
    return StackWalker.getInstance()
        .walk(frames -> frames.filter(frame -> !OURS.contains(frame.getClassName())).findFirst())
        .map(frame -> new Place(frame.toStackTraceElement()))
        .orElseThrow();
  }
}
