// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.StubSpec;
import java.util.Collection;
import java.util.List;

/**
 * A stub, as declared in a stub file.
 *
 * @param draft its declaration
 * @param spec the stub, without {@code after}
 * @param after the names of the stubs that must be called first
 * @param missing reports an unknown stub in {@code after}
 */
public record StubDeclaration(DraftStub draft, StubSpec spec, List<String> after, Missing missing) {

  /** Reports an unknown stub name. */
  @FunctionalInterface
  public interface Missing {

    /** A name, and the known ones. */
    void note(String name, Collection<String> known);
  }

  /** Copies the list. */
  public StubDeclaration {
    after = List.copyOf(after);
  }
}
