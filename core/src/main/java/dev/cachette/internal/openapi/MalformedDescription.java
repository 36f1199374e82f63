package dev.cachette.internal.openapi;

/** A description that cannot be used, and where that shows. */
public final class MalformedDescription extends IllegalArgumentException {

  private static final long serialVersionUID = 1;

  private final transient Place place;

  /**
   * Where it stands.
   *
   * @param file the file, as it was named
   * @param line its line, from 1
   * @param path the way to it, as a JSON Pointer
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

  /** Where. */
  public Place place() {
    return place;
  }

  /** What is wrong, without its place. */
  public String problem() {
    return String.valueOf(super.getMessage());
  }

  /** The place in front. */
  @Override
  public String getMessage() {
    String path = place.path().isEmpty() ? "" : place.path() + ": ";
    return place + ": " + path + problem();
  }
}
