package dev.cachette.answer;

/**
 * What the caller of a stub gets. Made by {@link Answers} and {@link Troubles}.
 *
 * <p>Answers are immutable values, safe to share between stubs and threads.
 */
public sealed interface Answer
    permits ResponseAnswer, ComputedAnswer, StreamAnswer, RealAnswer, Trouble {}
