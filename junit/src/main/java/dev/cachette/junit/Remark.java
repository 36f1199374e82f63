package dev.cachette.junit;

/** Something worth knowing beside a failure: it is printed below it, as suppressed. */
final class Remark extends Exception {

  private static final long serialVersionUID = 1;

  Remark(String text) {
    super(text, null, false, false);
  }

  /** The text alone. */
  @Override
  public String toString() {
    return getMessage();
  }
}
