// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.stubfile.StubFileProblem;
import java.util.List;

/** Validates the needs that Java code states, by the rules of stub files. */
public final class NeedsCheck {

  private NeedsCheck() {}

  /** Returns the problems of {@code needs}; empty if they are valid. */
  public static List<String> problems(ObjectNode needs) {
    Problems problems = new Problems("");
    Trees.read(needs.toString(), problems::note)
        .ifPresent(node -> NeedsReader.check(node, problems));
    return problems.all().stream().map(StubFileProblem::message).toList();
  }
}
