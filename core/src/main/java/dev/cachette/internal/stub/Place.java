package dev.cachette.internal.stub;

/** A line of the user's code, kept as a frame and made text only when it is printed. */
public record Place(StackTraceElement frame) {

  /** The exception, as if it had been thrown at this line. */
  public <E extends Throwable> E thrownHere(E exception) {
    exception.setStackTrace(new StackTraceElement[] {frame});
    return exception;
  }

  /** {@code BerthDeskTest.java:41}, which development environments make a link of. */
  @Override
  public String toString() {
    return frame.getFileName() == null
        ? frame.getClassName()
        : frame.getFileName() + ":" + frame.getLineNumber();
  }
}
