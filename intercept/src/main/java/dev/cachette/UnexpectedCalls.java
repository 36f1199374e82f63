package dev.cachette;

/**
 * What becomes of calls that no stub answers. Their caller gets 501 with the reason in any case.
 */
public enum UnexpectedCalls {

  /** They are logged as warnings, and the end of the test or {@link Cachette#close()} fails. */
  FAIL,

  /** They are logged as warnings, and nothing fails. */
  WARN
}
