// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

/**
 * A page that shows a test run while it runs. Implemented by {@code cachette-control}, and found as
 * a service. Not public API: may change in any release.
 *
 * @hidden
 */
public interface RunPage extends RunObserver {

  /**
   * Opens it; once.
   *
   * @return its URL
   * @throws IllegalStateException if the port is taken
   */
  String open(int port);
}
