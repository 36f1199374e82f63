package dev.cachette.internal.stub;

import dev.cachette.calls.StubReference;
import dev.cachette.match.RequestPattern;

/** A stub that was begun and has no answer yet. */
public final class DraftStub implements DeclaredStub {

  private final RequestPattern pattern;
  private final Place place;
  private String name;

  /** A stub begun at this place; its name is its request line until it is given one. */
  public DraftStub(RequestPattern pattern, Place place) {
    this.pattern = pattern;
    this.place = place;
    this.name = pattern.toString();
  }

  /** Gives it a name. */
  public void rename(String newName) {
    this.name = newName;
  }

  /** Where it was begun. */
  public Place place() {
    return place;
  }

  @Override
  public RequestPattern pattern() {
    return pattern;
  }

  @Override
  public StubReference reference() {
    return new StubReference(name, place.toString());
  }

  /** The misuse error, as if thrown where the stub was begun. */
  public IllegalStateException unanswered() {
    return place.thrownHere(
        new IllegalStateException(
            "The stub "
                + reference()
                + " has no answer. "
                + "Mend: end its declaration with .answer(...)."));
  }
}
