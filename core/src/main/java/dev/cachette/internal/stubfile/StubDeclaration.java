package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.stubfile.StubFileProblem;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;
import java.util.function.ObjLongConsumer;

/**
 * A stub, as declared in a stub file.
 *
 * @param draft its pattern, name and checks
 * @param answers its answers, at least one
 * @param after the names of the stubs that must be called first
 * @param changes its other settings, which need the seed
 * @param missing reports an unknown stub in {@code after}
 * @param refused creates a problem of this stub
 */
public record StubDeclaration(
    DraftStub draft,
    List<Answer> answers,
    List<String> after,
    List<ObjLongConsumer<StubRule>> changes,
    Missing missing,
    Function<String, StubFileProblem> refused) {

  /** Reports an unknown stub name. */
  @FunctionalInterface
  public interface Missing {

    /** A name, and the known ones. */
    void note(String name, Collection<String> known);
  }

  /** Copies the lists. */
  public StubDeclaration {
    answers = List.copyOf(answers);
    after = List.copyOf(after);
    changes = List.copyOf(changes);
  }

  /** Returns a problem at the place of this stub. */
  public StubFileProblem problem(String message) {
    return refused.apply(message);
  }

  /** Applies the settings of the stub, except {@code after}. */
  public void applyTo(StubRule rule, long seed) {
    changes.forEach(change -> change.accept(rule, seed));
  }
}
