package dev.cachette.internal.stub;

import dev.cachette.calls.StubReference;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A stub that was begun and has no answer yet. */
public final class DraftStub {

  /** Why it answers nothing yet. */
  static final Check OBSTACLE =
      Check.missed(
          "declaration",
          0.8,
          Difference.of("an answer", "none was given")
              .because(Optional.of("it does not end with .answer(...)")));

  private final Place place;
  private final List<StubCheck> checks = new ArrayList<>();
  private RequestPattern pattern;
  private @Nullable String name;
  private @Nullable String bodyFile;

  /** A stub begun at this place; its name is its pattern until it is given one. */
  public DraftStub(RequestPattern pattern, Place place) {
    this.pattern = pattern;
    this.place = place;
  }

  /** Gives it a name. */
  public void rename(String newName) {
    this.name = newName;
  }

  /** Narrows the requests that it is for. */
  public void narrow(RequestPattern narrower) {
    this.pattern = narrower;
  }

  /** Adds a check of the requests that it answers. */
  public void check(StubCheck check) {
    checks.add(check);
  }

  /** Keeps the bodies of its requests in a file. */
  public void keepBodyIn(String file) {
    bodyFile = file;
  }

  /** The file that the body of a request is kept in, not in memory. */
  public Optional<String> bodyFile() {
    return Optional.ofNullable(bodyFile);
  }

  /** Which requests it is for. */
  public RequestPattern pattern() {
    return pattern;
  }

  /** What must hold for the requests that it answers. */
  public List<StubCheck> checks() {
    return checks;
  }

  /** Its name and place. */
  public StubReference reference() {
    return new StubReference(name == null ? pattern.line() : name, place.toString());
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
