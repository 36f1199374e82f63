// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

/** Thrown if an API description cannot be used, with the place. */
public final class MalformedDescription extends IllegalArgumentException {

  private static final long serialVersionUID = 1;

  private final transient Place place;

  /**
   * The place of a problem.
   *
   * @param file the file, as given
   * @param line its line, from 1
   * @param path its JSON Pointer
   */
  public record Place(String file, int line, String path) {

    @Override
    public String toString() {
      return file + ":" + line;
    }
  }

  MalformedDescription(Place place, String message) {
    super(message);
    this.place = place;
  }

  /** Returns the place. */
  public Place place() {
    return place;
  }

  /** Returns the problem, without its place. */
  public String problem() {
    return String.valueOf(super.getMessage());
  }

  /** Returns the place, then the problem. */
  @Override
  public String getMessage() {
    String path = place.path().isEmpty() ? "" : place.path() + ": ";
    return place + ": " + path + problem();
  }
}
