// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Trees;
import java.util.Optional;

/** Reads single answers in the form of stub files. */
public final class AnswerText {

  private AnswerText() {}

  /**
   * Reads an answer.
   *
   * @throws IllegalArgumentException if it is invalid
   */
  public static Answer read(JsonNode form) {
    Problems problems = new Problems("");
    AnswerReader reader = new AnswerReader(problems, new WithoutFiles());
    Optional<Answer> answer =
        Trees.read(form.toString(), problems::note).flatMap(node -> reader.read(node));
    return answer.orElseThrow(() -> new IllegalArgumentException(problems.all().get(0).message()));
  }
}
