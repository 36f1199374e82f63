// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

/** A file of an API description, and the files that it may refer to. */
public interface DescriptionFile {

  /** Returns its name in messages; files with the same label are the same. */
  String label();

  /** Returns its text. */
  String text();

  /**
   * Returns the file with this name, relative to this one.
   *
   * @throws IllegalArgumentException if there is none
   */
  DescriptionFile sibling(String name);
}
