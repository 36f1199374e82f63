// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.yaml.Node;
import dev.cachette.stubfile.StubFileProblem;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** The problems of one file, collected while it is read. */
public final class Problems {

  private final String file;
  private final Map<String, String> hints = new HashMap<>();
  private final List<StubFileProblem> all = new ArrayList<>();

  public Problems(String file) {
    this.file = file;
  }

  public String file() {
    return file;
  }

  /** Sorted by line. */
  public List<StubFileProblem> all() {
    return all.stream()
        .sorted(
            Comparator.comparingInt(StubFileProblem::line)
                .thenComparingInt(StubFileProblem::column))
        .toList();
  }

  public void add(Node at, String message) {
    note(at.line(), at.column(), at.path(), message);
  }

  /** Adds a problem at a place. */
  public void note(int line, int column, String path, String message) {
    all.add(new StubFileProblem(file, line, column, path, message));
  }

  /** Sets what is reported instead of an unknown word. */
  public void hint(String word, String message) {
    hints.put(word, message);
  }

  /**
   * Adds a problem for an unknown word, with a suggestion.
   *
   * @param what the kind of word, and perhaps its place: {@code key of a stub}
   */
  public void unknown(Node at, String word, String what, Collection<String> allowed) {
    if (hints.containsKey(word)) {
      add(at, hints.get(word));
      return;
    }
    int space = what.indexOf(' ');
    String near = NameSuggester.question(word, allowed);
    add(
        at,
        String.format(
            "unknown %s \"%s\"%s.%s Allowed: %s.",
            space < 0 ? what : what.substring(0, space),
            word,
            space < 0 ? "" : what.substring(space),
            near,
            String.join(", ", NameSuggester.closestFirst(word, allowed))));
  }

  /** Creates something; if its arguments are rejected, that is a problem at this place. */
  public <T> Optional<T> attempt(Node at, Supplier<T> making) {
    try {
      return Optional.of(making.get());
    } catch (IllegalArgumentException | IllegalStateException refused) {
      add(at, String.valueOf(refused.getMessage()));
      return Optional.empty();
    }
  }
}
