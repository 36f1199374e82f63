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
 * A stub as a file declares it.
 *
 * @param draft its pattern, name and checks
 * @param answers its answers, at least one
 * @param after the names of the stubs that must have been called before it is live
 * @param changes what is said of it beyond that, for which the seed of the settings is given
 * @param missing what is said where a stub of {@code after} is not there
 * @param refused makes a problem of this stub
 */
public record StubDeclaration(
    DraftStub draft,
    List<Answer> answers,
    List<String> after,
    List<ObjLongConsumer<StubRule>> changes,
    Missing missing,
    Function<String, StubFileProblem> refused) {

  /** Notes a problem where a stub is named that is nowhere. */
  @FunctionalInterface
  public interface Missing {

    /** A name, and those that there are. */
    void note(String name, Collection<String> known);
  }

  /** Copies the lists. */
  public StubDeclaration {
    answers = List.copyOf(answers);
    after = List.copyOf(after);
    changes = List.copyOf(changes);
  }

  /** A problem at the place of this stub. */
  public StubFileProblem problem(String message) {
    return refused.apply(message);
  }

  /** Does what is said of the stub, but for {@code after}. */
  public void applyTo(StubRule rule, long seed) {
    changes.forEach(change -> change.accept(rule, seed));
  }
}
