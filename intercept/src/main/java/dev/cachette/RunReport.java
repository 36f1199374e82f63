// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.nio.file.Path;

/**
 * A report that shows a test run when it is over. Implemented by {@code cachette-report}, and found
 * as a service. Not public API: may change in any release.
 *
 * @hidden
 */
public interface RunReport extends RunObserver {

  /**
   * Begins it; once.
   *
   * @return the file that will show it
   * @throws IllegalStateException if the folder cannot be written
   */
  Path open(Path folder);
}
