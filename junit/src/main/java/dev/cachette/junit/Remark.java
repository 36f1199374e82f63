package dev.cachette.junit;

/** A note on a failure, printed below it as suppressed. */
final class Remark extends Exception {

  private static final long serialVersionUID = 1;

  Remark(String text) {
    super(text, null, false, false);
  }

  /** Returns the text alone. */
  @Override
  public String toString() {
    return getMessage();
  }
}
