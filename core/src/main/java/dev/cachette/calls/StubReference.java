package dev.cachette.calls;

/**
 * Names a stub in calls and messages.
 *
 * @param name the name it was given, or its request line
 * @param place where it was declared: {@code BerthDeskTest.java:41}
 */
public record StubReference(String name, String place) {

  /** The name in quotes with the place: {@code "book a berth" (BerthDeskTest.java:41)}. */
  @Override
  public String toString() {
    return "\"" + name + "\" (" + place + ")";
  }
}
