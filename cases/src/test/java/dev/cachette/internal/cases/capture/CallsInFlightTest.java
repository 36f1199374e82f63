// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.tunnel.TunnelledJvm;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** Which incoming call an outgoing one belongs to, and which calls may run at the same time. */
class CallsInFlightTest {

  private final AtomicLong now = new AtomicLong();
  private final CallsInFlight calls = new CallsInFlight(() -> true, now::get);

  private static Maker maker(long call, Evidence evidence) {
    return new Maker(new TestId(call, "", false), evidence, Optional.of("t"), List::of);
  }

  private OptionalLong owner(long call, Evidence evidence) {
    return calls.ownerOf(maker(call, evidence)).call();
  }

  /** Begins with a call of an endpoint, all of whose outgoing calls were attributed. */
  private void beginCertain(long number, String endpoint) {
    calls.begin(number + 1_000, endpoint);
    calls.end(number + 1_000);
    calls.begin(number, endpoint);
  }

  @Test
  void evidenceDecides() {
    beginCertain(1, "GET /a");
    beginCertain(2, "GET /b");

    assertEquals(OptionalLong.of(1), owner(1, Evidence.HANDED_OVER));
    assertEquals(OptionalLong.of(2), owner(2, Evidence.TEST_THREAD));
    assertEquals(OptionalLong.empty(), owner(TunnelledJvm.BACKGROUND, Evidence.HANDED_OVER));
  }

  @Test
  void withoutEvidenceItIsTheOnlyUncertainOne() {
    beginCertain(1, "GET /a");
    calls.begin(2, "GET /b");

    assertEquals(OptionalLong.of(2), owner(0, Evidence.NONE));
  }

  @Test
  void sharedConnectionsMayBeOfAnyCall() {
    beginCertain(1, "GET /a");
    calls.begin(2, "GET /b");

    assertEquals(List.of(1L, 2L), calls.ownerOf(maker(1, Evidence.STARTED_THREAD)).doubt());
    assertEquals(List.of(1L, 2L), calls.ownerOf(maker(0, Evidence.SEVERAL)).doubt());
  }

  @Test
  void withoutEvidenceItIsTheOnlyOne() {
    assertEquals(OptionalLong.empty(), owner(0, Evidence.NONE));
    beginCertain(1, "GET /a");
    assertEquals(OptionalLong.of(1), owner(0, Evidence.NONE));
  }

  @Test
  void severalCertainOnesAreInDoubtOnce() {
    beginCertain(1, "GET /a");
    beginCertain(2, "GET /b");

    assertEquals(List.of(1L, 2L), calls.ownerOf(Maker.UNKNOWN).doubt());
    calls.end(1);
    calls.end(2);
    calls.begin(3, "GET /a");
    assertFalse(begun(4, "GET /b").isDone());
  }

  @Test
  void lateCallBelongsToItsOwnForAWhile() {
    beginCertain(1, "GET /a");
    calls.end(1);
    now.addAndGet(TimeUnit.SECONDS.toNanos(9));
    assertEquals(OptionalLong.of(1), owner(1, Evidence.HANDED_OVER));
    now.addAndGet(TimeUnit.SECONDS.toNanos(2));
    assertEquals(OptionalLong.empty(), owner(1, Evidence.HANDED_OVER));
  }

  @Test
  void uncertainOnesRunOneAtATime() {
    calls.begin(1, "GET /a");
    CompletableFuture<Void> second = begun(2, "GET /b");
    CompletableFuture<Void> third = begun(3, "GET /c");
    assertFalse(second.isDone() || third.isDone());

    calls.end(1);
    CompletableFuture.anyOf(second, third).join();
    assertFalse(second.isDone() && third.isDone());
    calls.end(second.isDone() ? 2 : 3);
    CompletableFuture.allOf(second, third).join();
  }

  @Test
  void callWithoutAnEndIsNotWaitedFor() {
    calls.begin(1, "GET /events");
    now.addAndGet(TimeUnit.SECONDS.toNanos(11));
    begun(2, "GET /b").join();
  }

  @Test
  void withoutAnAgentAllRunOneAtATime() {
    CallsInFlight unfollowed = new CallsInFlight(() -> false, now::get);
    for (long number = 1; number <= 3; number++) {
      unfollowed.begin(number, "GET /a");
      assertEquals(OptionalLong.of(number), unfollowed.ownerOf(Maker.UNKNOWN).call());
      unfollowed.end(number);
    }
    unfollowed.begin(4, "GET /a");
    CompletableFuture<Void> second =
        CompletableFuture.runAsync(() -> unfollowed.begin(5, "GET /a"));
    assertFalse(second.isDone());
    unfollowed.end(4);
    second.join();
  }

  private CompletableFuture<Void> begun(long number, String endpoint) {
    return CompletableFuture.runAsync(
        () -> calls.begin(number, endpoint), task -> new Thread(task).start());
  }
}
