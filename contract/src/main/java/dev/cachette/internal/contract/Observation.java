// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;

/**
 * One request of a passing test, with its needs.
 *
 * @param clause the clause, needed by this test alone
 * @param place where its stub was declared: {@code BerthDeskTest.java:41}
 */
record Observation(Clause clause, String place) {

  /** Reads the form of part files. */
  static Observation read(JsonNode form) {
    return new Observation(Clause.read(form.path("clause")), form.path("place").asText());
  }

  /** Returns it in the form of part files. */
  ObjectNode form() {
    ObjectNode form = StubNodes.member("clause", clause.form());
    return form.put("place", place);
  }

  String test() {
    return clause.neededBy().first();
  }

  /** Returns what it has in common with others of the same request in the same state. */
  String question() {
    return clause.request() + " " + clause.given();
  }

  /** Returns what clauses that become one have in common. */
  String key() {
    return clause.name()
        + " "
        + question()
        + " "
        + clause.status()
        + " "
        + clause.shape().mediaType();
  }

  /** Returns a text by which observations are sorted, whatever the order of the tests. */
  String order() {
    return key() + " " + clause.form() + " " + place;
  }

  /** Returns the text of its example, of which the first one by order is kept. */
  String exampleOrder() {
    return clause.example().form() + " " + clause.answer();
  }

  /** Returns everything but the example, for those that differ in nothing else. */
  String withoutExample() {
    return key() + " " + clause.shape().form() + " " + clause.neededBy() + " " + place;
  }
}
