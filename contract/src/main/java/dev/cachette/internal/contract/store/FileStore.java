// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.verification.StoreException;
import java.util.List;
import java.util.Map;

/** Files that are written once. */
interface FileStore {

  /** Returns the paths of all files, sorted, with {@code /} between names. */
  List<String> paths();

  /**
   * Returns the text of a file.
   *
   * @throws StoreException if it does not exist
   */
  String read(String path);

  /**
   * Adds files, in their order. A file that exists with the same text is left alone.
   *
   * @param message what is added, in a few words
   * @throws StoreException if one exists with another text, or if they cannot be written
   */
  void add(Map<String, String> files, String message);
}
