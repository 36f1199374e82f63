package dev.cachette.cassette;

/**
 * A cassette that is missing, cannot be read, or must not be written. The message names the file,
 * the place in it as line, column and path where there is one, and the mend. Nothing is lost then:
 * a file that was there is as it was.
 */
public final class CassetteException extends RuntimeException {

  private static final long serialVersionUID = 1;

  /** With the reason and the mend. */
  public CassetteException(String message) {
    super(message);
  }

  /** With the reason and the mend, and what it came of. */
  public CassetteException(String message, Throwable cause) {
    super(message, cause);
  }
}
