package dev.cachette.calls;

/**
 * The name and place of a stub, for calls and messages.
 *
 * @param name its name, or its request line
 * @param place where it was declared: {@code BerthDeskTest.java:41}
 */
public record StubReference(String name, String place) {

  /** Returns the name in quotes, and the place: {@code "book a berth" (BerthDeskTest.java:41)}. */
  @Override
  public String toString() {
    return "\"" + name + "\" (" + place + ")";
  }
}
