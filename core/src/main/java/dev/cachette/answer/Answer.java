package dev.cachette.answer;

/**
 * What a stub gives to the caller: a response, a computed response, or a fault. Created by {@link
 * Answers} and {@link Faults}.
 *
 * <p>Answers are immutable values, safe to share between stubs and threads.
 */
public sealed interface Answer
    permits ResponseAnswer, ComputedAnswer, StreamAnswer, RealAnswer, Fault {}
