// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

/**
 * The name and place of a stub, for calls and messages.
 *
 * @param name its name, or its request line
 * @param place where it was declared: {@code BerthDeskTest.java:41}
 */
public record StubReference(String name, String place) {

  /** Returns the file that declares it; the whole place if that has no line. */
  public String file() {
    int colon = place.lastIndexOf(':');
    return colon < 0 ? place : place.substring(0, colon);
  }

  /** Returns true if a stub file declares it, not Java. */
  public boolean isInStubFile() {
    return file().endsWith(".yaml") || file().endsWith(".yml") || file().endsWith(".json");
  }

  /** Returns the line that declares it; 1 if its place has none. */
  public int line() {
    int colon = place.lastIndexOf(':');
    String number = place.substring(colon + 1);
    return colon < 0 || !number.matches("[0-9]{1,9}") ? 1 : Integer.parseInt(number);
  }

  /** Returns the name in quotes, and the place: {@code "book a berth" (BerthDeskTest.java:41)}. */
  @Override
  public String toString() {
    return "\"" + name + "\" (" + place + ")";
  }
}
