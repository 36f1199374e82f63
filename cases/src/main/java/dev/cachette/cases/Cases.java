// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Tests made from traffic: cases that {@link Capture} has written are replayed against the
 * application, with its outgoing calls answered from the cases.
 *
 * <pre>{@code
 * @TestFactory
 * Stream<DynamicNode> cases() {
 *   return Cases.in("src/test/cases").against("http://localhost:" + port).tests();
 * }
 * }</pre>
 */
public final class Cases {

  private Cases() {}

  /**
   * Returns the cases in a folder.
   *
   * @param folder the folder, relative to the working directory
   * @throws IllegalArgumentException if it does not exist
   */
  public static StoredCases in(String folder) {
    Refusals.given("in(folder)", folder);
    return in(Path.of(folder));
  }

  /** As {@link #in(String)}. */
  public static StoredCases in(Path folder) {
    Refusals.given("in(folder)", folder);
    if (!Files.isDirectory(folder)) {
      throw Refusals.argument(
          String.format(
              "There is no folder %s.%nFix: capture cases with cachette capture --to %s.",
              folder.toAbsolutePath(), folder));
    }
    return new StoredCases(new CaseFolder(folder));
  }
}
