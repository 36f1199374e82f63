package dev.cachette.calls;

/** Something that calls belong to, such as the stub that answered them. */
@FunctionalInterface
public interface CallGroup {

  /** The calls that belong to it. */
  Calls calls();
}
