package dev.cachette.stubfile;

import java.util.List;
import java.util.stream.Collectors;

/** Stub files that cannot be used, with everything that is wrong in any of them. */
public final class StubFileException extends IllegalArgumentException {

  private static final long serialVersionUID = 1;

  private final transient List<StubFileProblem> problems;

  /** With what is wrong: files that are missing, then the others by line; at least one thing. */
  public StubFileException(List<StubFileProblem> problems) {
    super(text(problems));
    this.problems = List.copyOf(problems);
  }

  /** What is wrong. */
  public List<StubFileProblem> problems() {
    return problems;
  }

  private static String text(List<StubFileProblem> problems) {
    String lines =
        problems.stream().map(StubFileProblem::toString).collect(Collectors.joining("\n"));
    return problems.size() == 1
        ? lines
        : String.format("%d problems in stub files:\n%s", problems.size(), lines);
  }
}
