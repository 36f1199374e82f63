// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import com.fasterxml.jackson.databind.JsonNode;

/** Cases that are captured or replayed, as the control port shows and changes them. */
public interface CaseControl {

  /** Returns all of them, as an array of objects. */
  JsonNode cases();

  /**
   * Gives one another name.
   *
   * @throws IllegalArgumentException if there is no such case, or the name cannot be one
   * @throws IllegalStateException if cases cannot be changed
   */
  void rename(long number, String name);

  /**
   * Removes one.
   *
   * @throws IllegalArgumentException if there is no such case
   * @throws IllegalStateException if cases cannot be changed
   */
  void drop(long number);

  /**
   * Marks a place as varying.
   *
   * @throws IllegalArgumentException if there is no such case, or it is not a place
   * @throws IllegalStateException if cases cannot be changed
   */
  void markVarying(long number, String place);
}
