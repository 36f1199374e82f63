package dev.cachette;

/** What happens at the end of a test about stubs that no call used. */
public enum UnusedStubs {

  /** They are logged as a warning. The default. */
  WARN,

  /** They fail the test. */
  FAIL,

  /** They are ignored. */
  IGNORE
}
