// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Node;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * The members of a stub that is being read, with what reads parts of them.
 *
 * @param fields the members
 * @param problems receives problems
 * @param answers reads answers
 * @param surroundings resolves files
 */
record StubFields(
    Fields fields, Problems problems, AnswerReader answers, StubFileResolver surroundings) {

  /** Reads the value of a key; a refusal is a problem of its place. Empty if it is absent. */
  <T> Optional<T> attempt(String name, Function<Node, T> reading) {
    return fields.get(name).flatMap(at -> problems.attempt(at, () -> reading.apply(at)));
  }

  /** Returns the members of the mapping under a key. */
  Fields within(Node node, String what, Keys<?> keys) {
    return Fields.of(node, what, keys, problems);
  }

  /** Reads answers. */
  List<Answer> answers(List<Node> nodes) {
    List<Answer> read = new ArrayList<>(nodes.size());
    for (Node each : nodes) {
      answers.read(each).ifPresent(read::add);
    }
    return read;
  }
}
