// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.result.StubReference;

/**
 * The answer to a call, for explanations.
 *
 * @param text it in words: {@code the stub "book a berth" (BerthTest.java:41)}
 * @param isStub whether it is a stub, which can be changed in the test
 * @param isInFile whether it is a stub in a stub file
 */
public record Answering(String text, boolean isStub, boolean isInFile) {

  /** An example of the API description. */
  public static final Answering EXAMPLE = new Answering("an example", false, false);

  /** The example itself, if it is wrong. */
  public static final Answering ITS_EXAMPLE = new Answering("its example", false, false);

  /** Returns a stub. */
  public static Answering stub(StubReference stub) {
    return new Answering("the stub " + stub, true, stub.isInStubFile());
  }

  /** Returns a recorded exchange. */
  public static Answering recording(StubReference exchange) {
    return new Answering(exchange.toString(), false, false);
  }

  /** Returns how a stub says that it violates the API description on purpose; else nothing. */
  String exception() {
    if (!isStub) {
      return "";
    }
    return "; if this is intentional, "
        + (isInFile ? "add unchecked: true to the stub" : "call unchecked() on the stub");
  }

  @Override
  public String toString() {
    return text;
  }
}
