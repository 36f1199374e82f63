package dev.cachette.examples.harbour;

/** A service of the harbour did not do what it was asked for. */
public final class HarbourException extends RuntimeException {

  private static final long serialVersionUID = 1L;

  HarbourException(String message) {
    super(message);
  }

  HarbourException(String message, Throwable cause) {
    super(message, cause);
  }
}
