// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import org.mockito.Mockito;

/** A JVM until its first mock of a class. */
public final class FirstMock {

  private FirstMock() {}

  /** Mocks. */
  public static void main(String[] arguments) {
    if (Mockito.mock(Desk.class).berth() != null) {
      throw new IllegalStateException("no mock");
    }
  }

  /** A class to mock. */
  static class Desk {
    String berth() {
      return "B-12";
    }
  }
}
