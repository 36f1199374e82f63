// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import java.util.List;

/** Receives what a {@link Capture} captures, on the threads that capture it. */
public interface CaptureListener {

  /** A case was written, or would have been, but is as before. */
  default void written(CapturedCaseInfo captured) {}

  /**
   * An outgoing call cannot be attributed to an incoming one; it is in the file of background
   * calls.
   *
   * @param call the outgoing call
   * @param possible the numbers of the incoming calls that may have made it
   */
  default void doubted(String call, List<Long> possible) {}
}
