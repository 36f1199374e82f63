// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.internal.misuse.Refusals;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Checks what a declaration of a stub is given. */
final class StubArguments {

  private StubArguments() {}

  static void name(@Nullable String name) {
    if (name == null || name.isBlank()) {
      throw Refusals.argument("The name of a stub must not be blank: " + name + ".");
    }
  }

  static void positive(String method, int number) {
    if (number < 1) {
      throw Refusals.argument(method + " needs a positive number, not " + number + ".");
    }
  }

  static List<Answer> answers(String what, Answer first, Answer... more) {
    List<Answer> answers = new ArrayList<>();
    answers.add(first);
    answers.addAll(Arrays.asList(more == null ? new Answer[] {null} : more));
    int missing = answers.indexOf(null);
    if (missing >= 0) {
      throw Refusals.argument(
          String.format(
              "%s: answer %d of %d is null. Fix: create one with Answers, such as status(204).",
              what, missing + 1, answers.size()));
    }
    return answers;
  }
}
