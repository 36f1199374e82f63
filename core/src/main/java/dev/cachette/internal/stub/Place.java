package dev.cachette.internal.stub;

/** A line of user code, stored as a stack frame and rendered only when printed. */
public record Place(StackTraceElement frame) {

  /** Returns the exception, as if it had been thrown at this line. */
  public <E extends Throwable> E thrownHere(E exception) {
    exception.setStackTrace(new StackTraceElement[] {frame});
    return exception;
  }

  /** Returns {@code BerthDeskTest.java:41}, which IDEs turn into a link. */
  @Override
  public String toString() {
    return frame.getFileName() == null
        ? frame.getClassName()
        : frame.getFileName() + ":" + frame.getLineNumber();
  }
}
