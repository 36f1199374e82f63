package dev.cachette.internal.stubfile;

import dev.cachette.internal.text.Likeness;
import dev.cachette.internal.yaml.Node;
import dev.cachette.stubfile.StubFileProblem;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/** What is wrong in one file, collected while it is read. */
final class Problems {

  private final String file;
  private final List<StubFileProblem> all = new ArrayList<>();

  Problems(String file) {
    this.file = file;
  }

  String file() {
    return file;
  }

  /** In the order of lines. */
  List<StubFileProblem> all() {
    return all.stream()
        .sorted(
            Comparator.comparingInt(StubFileProblem::line)
                .thenComparingInt(StubFileProblem::column))
        .toList();
  }

  void add(Node at, String message) {
    note(at.line(), at.column(), at.path(), message);
  }

  /** Notes something, wherever it stands. */
  void note(int line, int column, String path, String message) {
    all.add(new StubFileProblem(file, line, column, path, message));
  }

  /** A word that is none of those that can stand there. */
  void unknown(Node at, String word, String what, Collection<String> allowed) {
    String near = Likeness.nearest(word, allowed).map(it -> " Is \"" + it + "\" meant?").orElse("");
    add(
        at,
        String.format(
            "\"%s\" is no %s.%s Allowed here: %s.",
            word, what, near, String.join(", ", allowed.stream().sorted().toList())));
  }

  /** Makes something; where its arguments are refused, that is a problem of this place. */
  <T> Optional<T> attempt(Node at, Supplier<T> making) {
    try {
      return Optional.of(making.get());
    } catch (IllegalArgumentException | IllegalStateException refused) {
      add(at, String.valueOf(refused.getMessage()));
      return Optional.empty();
    }
  }
}
