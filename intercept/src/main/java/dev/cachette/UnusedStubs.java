package dev.cachette;

/** What is done, at the end of a test, about stubs that no call used. */
public enum UnusedStubs {

  /** They are named in a warning in the log. The default. */
  WARN,

  /** They fail the test. */
  FAIL,

  /** Nothing. */
  IGNORE
}
