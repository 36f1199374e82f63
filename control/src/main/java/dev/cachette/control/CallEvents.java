// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.stream;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Event;
import dev.cachette.answer.Feed;
import dev.cachette.calls.Call;
import dev.cachette.internal.json.Json;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * Sends calls to whoever looks on, as Server-Sent Events (WHATWG HTML): those that there are, then
 * each one as it arrives, and again when it has got further. Thread-safe.
 */
final class CallEvents {

  private static final long PAUSE_MILLIS = 100;

  /** The calls in one event. */
  private static final int AT_ONCE = 1_000;

  /** A feed keeps what it has sent; whoever looks on then subscribes again. */
  private static final int MOST = 200_000;

  /** A call may be logged after so many that arrived later. */
  private static final int LATE = 1_000;

  private final Controlled of;
  private final Set<Subscriber> subscribers = ConcurrentHashMap.newKeySet();
  private final ScheduledExecutorService clock =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread thread = new Thread(task, "cachette-events");
            thread.setDaemon(true);
            return thread;
          });

  private boolean running;

  CallEvents(Controlled of) {
    this.of = of;
  }

  /**
   * Returns an answer that goes on until the caller leaves.
   *
   * @param after the number of the last call that the caller has seen
   */
  synchronized Answer subscribe(CallFilter filter, long after) {
    Subscriber subscriber = new Subscriber(filter, after, of.clearings());
    subscriber.feed.send(Event.of("[]").named("hello"));
    subscribers.add(subscriber);
    if (!running) {
      running = true;
      clock.scheduleWithFixedDelay(this::tell, 0, PAUSE_MILLIS, TimeUnit.MILLISECONDS);
    }
    return stream("text/event-stream", subscriber.feed).header("cache-control", "no-store");
  }

  private void tell() {
    if (subscribers.isEmpty()) {
      return;
    }
    List<Call> calls = of.calls().stream().toList();
    for (Subscriber each : subscribers) {
      try {
        each.tell(calls, of.clearings());
      } catch (RuntimeException failed) {
        // The others are told on; this one may subscribe again.
        each.feed.end();
        subscribers.remove(each);
      }
      if (each.isGone()) {
        subscribers.remove(each);
      }
    }
  }

  /** Ends all streams. */
  void close() {
    clock.shutdownNow();
    subscribers.forEach(each -> each.feed.end());
  }

  /** One who looks on; used by the thread of the clock. */
  private static final class Subscriber {

    private static final long PATIENCE_NANOS = Duration.ofSeconds(10).toNanos();

    private final Feed feed = new Feed();
    private final CallFilter filter;
    private final long begun = System.nanoTime();
    private boolean read;

    /** The number up to which all is told, except what is in the next one. */
    private long told;

    /** By number: how far those calls had got that were told, if they go on. */
    private final Map<Long, Call.State> goingOn = new HashMap<>();

    /** Those that were passed by lately. */
    private final TreeSet<Long> seen = new TreeSet<>();

    private int sent;
    private long clearings;

    Subscriber(CallFilter filter, long after, long clearings) {
      this.filter = filter;
      this.told = after;
      this.clearings = clearings;
    }

    void tell(List<Call> calls, long clearingsNow) {
      read |= feed.readers() > 0;
      if (clearingsNow != clearings) {
        clearings = clearingsNow;
        feed.send(Event.of("[]").named("cleared"));
      }
      List<Map<String, Object>> fresh = new ArrayList<>();
      for (int at = first(calls); at < calls.size(); at++) {
        Call call = calls.get(at);
        if (call.number() > told && (seen.add(call.number()) || isFurther(call))) {
          note(call, fresh);
        }
        if (fresh.size() == AT_ONCE) {
          send(fresh);
        }
      }
      send(fresh);
      forget();
    }

    /** Calls are in the order of their numbers. */
    private int first(List<Call> calls) {
      int low = 0;
      int high = calls.size();
      while (low < high) {
        int middle = (low + high) >>> 1;
        if (calls.get(middle).number() <= told) {
          low = middle + 1;
        } else {
          high = middle;
        }
      }
      return low;
    }

    private boolean isFurther(Call call) {
      Call.State before = goingOn.get(call.number());
      return before != null && (before != call.state() || call.duration().isPresent());
    }

    private void note(Call call, List<Map<String, Object>> fresh) {
      if (call.duration().isPresent()) {
        goingOn.remove(call.number());
      } else {
        goingOn.put(call.number(), call.state());
      }
      if (filter.selects(call)) {
        fresh.add(CallJson.summary(call));
      }
    }

    private void send(List<Map<String, Object>> fresh) {
      if (!fresh.isEmpty()) {
        sent += fresh.size();
        feed.send(Event.of(Json.write("calls", fresh, Json.mapper())).named("calls"));
        fresh.clear();
      }
      if (sent > MOST) {
        feed.end();
      }
    }

    /** Nothing before the first that goes on, or that may still come, is looked at again. */
    private void forget() {
      long oldestOpen = goingOn.keySet().stream().mapToLong(it -> it).min().orElse(Long.MAX_VALUE);
      while (seen.size() > LATE && seen.first() < oldestOpen) {
        told = Math.max(told, seen.pollFirst());
      }
    }

    boolean isGone() {
      boolean left = read && feed.readers() == 0;
      boolean neverCame = !read && System.nanoTime() - begun > PATIENCE_NANOS;
      return left || neverCame || sent > MOST;
    }
  }
}
