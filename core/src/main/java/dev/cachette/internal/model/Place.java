// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

/** A line of user code, stored as a stack frame and rendered only when printed. */
public record Place(StackTraceElement frame) {

  /** Returns true if it is in a method, or in a lambda expression of it. */
  public boolean isIn(String className, String methodName) {
    String method = frame.getMethodName();
    return frame.getClassName().equals(className)
        && (method.equals(methodName) || method.startsWith("lambda$" + methodName + "$"));
  }

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
