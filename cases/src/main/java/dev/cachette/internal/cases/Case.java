// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A case: incoming calls of an application in order, each with the outgoing calls that it caused.
 *
 * @param name its name, that of its file
 * @param steps the incoming calls; one, unless it is a session
 */
public record Case(String name, List<Step> steps) {

  /** The name of the case of outgoing calls that no incoming call has caused. */
  public static final String BACKGROUND = "background";

  /** Copies the list. */
  public Case {
    steps = List.copyOf(steps);
  }

  /**
   * An incoming call with its outgoing ones.
   *
   * @param incoming the incoming call; empty for outgoing calls of the application by itself
   * @param outgoing the outgoing calls, in the order in which they began
   */
  public record Step(Optional<CaseExchange> incoming, List<CaseExchange> outgoing) {

    /** Copies the list. */
    public Step {
      outgoing = List.copyOf(outgoing);
    }
  }

  /** Returns all its exchanges, in the order of the file. */
  public List<CaseExchange> exchanges() {
    List<CaseExchange> all = new ArrayList<>();
    for (Step step : steps) {
      step.incoming().ifPresent(all::add);
      all.addAll(step.outgoing());
    }
    return all;
  }

  /** Returns true if it has outgoing calls only, which no incoming call has caused. */
  public boolean isBackground() {
    return steps.stream().allMatch(step -> step.incoming().isEmpty());
  }
}
