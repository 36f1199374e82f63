// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.VaryingPlaces;
import dev.cachette.internal.cases.file.CaseFile;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A case while it is captured: one incoming call, or the steps of a session. Thread-safe. */
public final class CapturedCase {

  private final long number;
  private final List<Draft> drafts = new ArrayList<>();
  private final Optional<String> givenName;
  private Optional<String> name = Optional.empty();
  private VaryingPlaces marks = VaryingPlaces.NONE;
  private Optional<Case> content = Optional.empty();
  private CaseFile.Change change = CaseFile.Change.UNCHANGED;
  private boolean dropped;

  CapturedCase(long number, Optional<String> givenName) {
    this.number = number;
    this.givenName = givenName;
  }

  /** Returns its number: that of its first incoming call; 0 for calls of the application itself. */
  public long number() {
    return number;
  }

  synchronized void add(Draft draft) {
    drafts.add(draft);
  }

  /** Returns its steps that are complete. */
  synchronized List<Draft> drafts() {
    return drafts.stream().filter(it -> number == 0 || it.incoming().isPresent()).toList();
  }

  Optional<String> givenName() {
    return givenName;
  }

  /** Returns its name; empty until it is written. */
  public synchronized Optional<String> name() {
    return name;
  }

  synchronized void call(String newName) {
    name = Optional.of(newName);
  }

  synchronized VaryingPlaces marks() {
    return marks;
  }

  /** Marks a place in the responses to its incoming calls as varying. */
  synchronized void mark(String place) {
    marks = marks.with(place);
  }

  /** Marks places in the responses to its incoming calls as varying. */
  synchronized void mark(VaryingPlaces places) {
    marks = marks.and(places);
  }

  synchronized void keep(Case newContent, CaseFile.Change newChange) {
    content = Optional.of(newContent);
    change = newChange;
  }

  /** Returns how its file has changed. */
  public synchronized CaseFile.Change change() {
    return change;
  }

  /** Returns the case as it was written last. */
  public synchronized Optional<Case> content() {
    return content;
  }

  synchronized void drop() {
    dropped = true;
  }

  /** Returns true if it is not wanted. */
  public synchronized boolean isDropped() {
    return dropped;
  }
}
