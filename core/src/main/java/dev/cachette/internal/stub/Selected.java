package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.internal.render.Tallies;

/**
 * A stub that won.
 *
 * @param rule the stub
 * @param answer the answer whose turn it is
 * @param count which call of the stub it is, from 1
 * @param tallies what templates count in this scope
 */
record Selected(StubRule rule, Answer answer, int count, Tallies tallies) {}
