// SPDX-License-Identifier: Apache-2.0
package dev.cachette.stubfile;

import java.util.List;
import java.util.stream.Collectors;

/** Thrown if stub files cannot be used, with all problems in all of them. */
public final class StubFileException extends IllegalArgumentException {

  private static final long serialVersionUID = 1;

  private final transient List<StubFileProblem> problems;

  /**
   * Creates an exception with all problems: missing files first, then the others by line; at least
   * one.
   */
  public StubFileException(List<StubFileProblem> problems) {
    super(text(problems));
    this.problems = List.copyOf(problems);
  }

  /** Returns the problems. */
  public List<StubFileProblem> problems() {
    return problems;
  }

  private static String text(List<StubFileProblem> problems) {
    String lines =
        problems.stream().map(StubFileProblem::toString).collect(Collectors.joining("\n"));
    return problems.size() == 1 ? lines : String.format("%d problems:\n%s", problems.size(), lines);
  }
}
