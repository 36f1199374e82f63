// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.tunnel.TunnelledJvm;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;

/**
 * The incoming calls that the application answers now, and which of them makes an outgoing one.
 *
 * <p>The agent in the application follows a call over threads and executors, but not over all of
 * them. So an endpoint is certain only once all outgoing calls of one of its calls were attributed.
 * Certain ones run in parallel; of the others there is never more than one, so that an outgoing
 * call that cannot be attributed otherwise belongs to that one.
 */
public final class CallsInFlight {

  /** An outgoing call this long after its incoming one is by a timer, not by that. */
  private static final long LATEST_NANOS = TimeUnit.SECONDS.toNanos(10);

  /** A call that takes longer than this is not waited for: it may be a stream without an end. */
  private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(10);

  private final BooleanSupplier isFollowed;
  private final LongSupplier nanos;
  private final Map<Long, InFlight> all = new LinkedHashMap<>();

  /** When calls have ended, the earliest first. */
  private final Map<Long, Long> ended = new LinkedHashMap<>();

  /** Endpoints whose outgoing calls are attributed. */
  private final Set<String> certain = new HashSet<>();

  /** Endpoints that have made an outgoing call that was not attributed. */
  private final Set<String> uncertain = new HashSet<>();

  private static final class InFlight {

    private final String endpoint;
    private final boolean isCertain;
    private final long began;

    InFlight(String endpoint, boolean isCertain, long began) {
      this.endpoint = endpoint;
      this.isCertain = isCertain;
      this.began = began;
    }
  }

  /**
   * Creates it without calls.
   *
   * @param isFollowed whether an agent in the application knows who makes calls
   */
  public CallsInFlight(BooleanSupplier isFollowed, LongSupplier nanos) {
    this.isFollowed = isFollowed;
    this.nanos = nanos;
  }

  /** Begins with an incoming call, when its outgoing calls can be attributed. */
  public synchronized void begin(long number, String endpoint) {
    try {
      for (long left = left(endpoint); left > 0; left = left(endpoint)) {
        wait(TimeUnit.NANOSECONDS.toMillis(left) + 1);
      }
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
    all.put(number, new InFlight(endpoint, certain.contains(endpoint), nanos.getAsLong()));
  }

  /** Returns how long to wait at most for the one that is uncertain, too. */
  private long left(String endpoint) {
    long now = nanos.getAsLong();
    return certain.contains(endpoint)
        ? 0
        : all.values().stream()
            .filter(other -> !other.isCertain)
            .mapToLong(other -> other.began + PATIENCE_NANOS - now)
            .max()
            .orElse(0);
  }

  /** A call is made once more, in the place of the first. */
  public synchronized void repeat(long number, long again) {
    InFlight call = all.remove(number);
    if (call != null) {
      all.put(again, call);
      ended(number);
    }
  }

  /** Ends an incoming call. */
  public synchronized void end(long number) {
    InFlight call = all.remove(number);
    if (call != null) {
      if (isFollowed.getAsBoolean() && !uncertain.contains(call.endpoint)) {
        certain.add(call.endpoint);
      }
      ended(number);
      notifyAll();
    }
  }

  /** Notes that one has ended, and forgets those that ended too long ago. */
  private void ended(long number) {
    long now = nanos.getAsLong();
    Iterator<Long> oldest = ended.values().iterator();
    while (oldest.hasNext() && now - oldest.next() >= LATEST_NANOS) {
      oldest.remove();
    }
    ended.put(number, now);
  }

  /**
   * Who has made an outgoing call.
   *
   * @param call the number of the incoming call; empty for none
   * @param doubt the numbers of those that it may be, if that is not known; else empty
   */
  public record Owner(OptionalLong call, List<Long> doubt) {

    private static final Owner NONE = new Owner(OptionalLong.empty(), List.of());

    static Owner of(long call) {
      return new Owner(OptionalLong.of(call), List.of());
    }
  }

  /** Returns who makes an outgoing call that has arrived. */
  public synchronized Owner ownerOf(Maker maker) {
    long attributed = maker.evidence().isCertain() ? maker.test().number() : 0;
    if (attributed == TunnelledJvm.BACKGROUND) {
      return Owner.NONE;
    }
    if (all.containsKey(attributed) || isRecent(attributed)) {
      return Owner.of(attributed);
    }
    if (attributed != 0 || all.isEmpty()) {
      return Owner.NONE;
    }
    List<Long> possible = new ArrayList<>();
    // A thread or connection that others share may work for a certain one, too.
    boolean isShared = maker.evidence() != Evidence.NONE;
    all.forEach(
        (number, call) -> {
          if (!call.isCertain && !isShared) {
            possible.add(number);
          }
        });
    if (possible.isEmpty()) {
      possible.addAll(all.keySet());
    }
    possible.forEach(number -> doubt(all.get(number).endpoint));
    return possible.size() == 1
        ? Owner.of(possible.get(0))
        : new Owner(OptionalLong.empty(), possible);
  }

  private boolean isRecent(long call) {
    return Optional.ofNullable(ended.get(call))
        .filter(at -> nanos.getAsLong() - at < LATEST_NANOS)
        .isPresent();
  }

  private void doubt(String endpoint) {
    certain.remove(endpoint);
    uncertain.add(endpoint);
  }
}
