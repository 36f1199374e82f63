// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Response;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.stubfile.AnswerText;

/** The example response of a clause. */
final class ClauseAnswer {

  private ClauseAnswer() {}

  /**
   * Returns the response of an answer in the form of stub files.
   *
   * @throws IllegalArgumentException if it is not a response
   */
  static Response response(JsonNode answer) {
    ObjectNode form =
        answer instanceof ObjectNode object ? object : StubNodes.member("status", answer);
    Answer read = AnswerText.read(form);
    if (read instanceof ResponseAnswer plain) {
      return plain.response();
    }
    throw new IllegalArgumentException("its answer is not a response: " + answer);
  }
}
