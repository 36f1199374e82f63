// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import java.util.List;

/** Is told of what a {@link Capture} does, on the threads that do it. */
public interface CaptureListener {

  /** A case was written, or would have been, but is as before. */
  default void written(CapturedCaseInfo captured) {}

  /**
   * It cannot be told which incoming call has made an outgoing one, which is in the file of those
   * without one.
   *
   * @param call the outgoing call
   * @param possible the numbers of the incoming calls that may have made it
   */
  default void doubted(String call, List<Long> possible) {}
}
