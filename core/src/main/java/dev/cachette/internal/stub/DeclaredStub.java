package dev.cachette.internal.stub;

import dev.cachette.internal.explain.Explanation;

/** A stub, with an answer or still without. */
sealed interface DeclaredStub extends Explanation.Stub permits DraftStub, StubRule {}
