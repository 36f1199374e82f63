// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Answer;
import dev.cachette.internal.template.TemplateState;
import java.util.List;

/**
 * The selected stub.
 *
 * @param rule the stub
 * @param answer its next answer
 * @param count the number of this call of the stub, from 1
 * @param templateState counters of templates in this scope
 * @param passing the stubs that have passed the call on
 */
record Selected(
    StubRule rule, Answer answer, int count, TemplateState templateState, List<StubRule> passing) {

  /** Returns it with the stubs that have passed the call on. */
  Selected after(List<StubRule> others) {
    return new Selected(rule, answer, count, templateState, List.copyOf(others));
  }
}
