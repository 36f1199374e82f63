// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A stub without an answer yet. */
public final class DraftStub {

  /** Why it answers no calls yet. */
  public static final Check OBSTACLE =
      Obstacle.of(
          Obstacle.NO_ANSWER, "a declaration that ends with .answer(...)", "it has no answer");

  private final Place place;
  private final long refusalsBefore = Refusals.count();
  private final List<StubCheck> checks = new ArrayList<>();
  private RequestPattern pattern;
  private @Nullable String name;
  private @Nullable String bodyFile;
  private boolean overriding;

  /** Creates a stub declared at this place; its name is its pattern until it gets one. */
  public DraftStub(RequestPattern pattern, Place place) {
    this.pattern = pattern;
    this.place = place;
  }

  /** Sets its name. */
  public void rename(String newName) {
    this.name = newName;
  }

  /** Adds conditions. */
  public void narrow(RequestPattern narrower) {
    this.pattern = narrower;
  }

  /** Returns the line that declared it. */
  public Place place() {
    return place;
  }

  /** Adds a check of the requests that it answers. */
  public void check(StubCheck check) {
    checks.add(check);
  }

  /** Saves the bodies of its requests to a file. */
  public void keepBodyIn(String file) {
    bodyFile = file;
  }

  /** Lets it win over more specific stubs of the same scope. */
  public void overriding() {
    overriding = true;
  }

  /** Returns its request pattern. */
  public RequestPattern pattern() {
    return pattern;
  }

  /**
   * Returns the stub with these answers.
   *
   * @throws IllegalArgumentException if one of them is impossible
   */
  public StubSpec answeredBy(List<Answer> answers) {
    StubSpec spec =
        StubSpec.of(pattern, reference(), answers).with(checks, Optional.ofNullable(bodyFile));
    return overriding ? spec.with(StubSpec.Trait.OVERRIDING) : spec;
  }

  /** Returns its name and place. */
  public StubReference reference() {
    return new StubReference(name == null ? nameOf(pattern) : name, place.toString());
  }

  /** Returns the name of a stub that has none: its request line, with secrets masked. */
  public static String nameOf(RequestPattern pattern) {
    return Masking.line(pattern.line());
  }

  /** Returns true if an argument was refused since; then its missing answer is no other mistake. */
  public boolean isRefused() {
    return Refusals.count() > refusalsBefore;
  }

  /** Returns the misuse error, as if thrown where the stub was declared. */
  public IllegalStateException unanswered() {
    return place.thrownHere(
        new IllegalStateException(
            "The stub "
                + reference()
                + " has no answer. Fix: end its declaration with .answer(...)."));
  }
}
