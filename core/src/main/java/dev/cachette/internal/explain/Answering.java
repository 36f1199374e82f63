package dev.cachette.internal.explain;

import dev.cachette.result.StubReference;

/**
 * The answer to a call, for explanations.
 *
 * @param text it in words: {@code the stub "book a berth" (BerthTest.java:41)}
 * @param isStub whether it is a stub, which can be changed in the test
 */
public record Answering(String text, boolean isStub) {

  /** An example of the API description. */
  public static final Answering EXAMPLE = new Answering("an example", false);

  /** The example itself, if it is wrong. */
  public static final Answering ITS_EXAMPLE = new Answering("its example", false);

  /** Returns a stub. */
  public static Answering stub(StubReference stub) {
    return new Answering("the stub " + stub, true);
  }

  /** Returns a recorded exchange. */
  public static Answering recording(StubReference exchange) {
    return new Answering(exchange.toString(), false);
  }

  @Override
  public String toString() {
    return text;
  }
}
