// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.StubFiles;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.opentest4j.AssertionFailedError;

/** A Cachette that is controlled over HTTP: its added stubs, and its calls. Thread-safe. */
public final class Controlled {

  private final Supplier<Cachette> net;
  private final Supplier<Calls> all;

  /** True if stubs can be added and removed, and all can be reset. */
  private final boolean changes;

  private final Map<Integer, Added> added = new ConcurrentSkipListMap<>();
  private final AtomicInteger numbers = new AtomicInteger();
  private final CallEvents events = new CallEvents(this);

  /** The number of the last call before the last clearing. */
  private volatile long clearedUpTo;

  private final AtomicLong clearings = new AtomicLong();

  /**
   * Stubs that were added together.
   *
   * @param stubs the stubs, also when they are switched off
   * @param order later ones were declared later
   * @param active false if they are switched off
   */
  private record Added(String text, StubFiles files, List<Stub> stubs, int order, boolean active) {}

  /** Controls an open Cachette. */
  public Controlled(Cachette net) {
    this(() -> net, net::calls, true);
  }

  /**
   * Controls one Cachette after the other.
   *
   * @param net returns the present one
   * @param all returns the calls to all of them
   * @param changes whether stubs can be added and removed, and all can be reset
   */
  Controlled(Supplier<Cachette> net, Supplier<Calls> all, boolean changes) {
    this.net = net;
    this.all = all;
    this.changes = changes;
  }

  private Cachette changing() {
    if (!changes) {
      throw new IllegalStateException(
          "This is a test run, whose stubs belong to its tests. Fix: change the tests.");
    }
    return net.get();
  }

  /** Returns true if stubs can be added and removed. */
  boolean changes() {
    return changes;
  }

  Cachette net() {
    return net.get();
  }

  /** Adds the stubs of a stub file; returns what {@link #added(int)} returns. */
  Map<String, Object> add(String text) {
    Added stubs = declared(text);
    added.put(stubs.order, stubs);
    return json(stubs.order, stubs);
  }

  private Added declared(String text) {
    StubFiles files = changing().declare(text);
    return new Added(text, files, files.stubs(), numbers.incrementAndGet(), true);
  }

  /** Replaces added stubs, atomically for callers; empty if there are none with this number. */
  synchronized Optional<Map<String, Object>> replace(int id, String text) {
    Added old = added.get(id);
    if (old == null) {
      return Optional.empty();
    }
    // The later ones win until the others are gone.
    Added stubs = declared(text);
    old.files.remove();
    added.put(id, stubs);
    return Optional.of(json(id, stubs));
  }

  /** Switches added stubs on or off; empty if there are none with this number. */
  synchronized Optional<Map<String, Object>> setActive(int id, boolean active) {
    Added old = added.get(id);
    if (old == null) {
      return Optional.empty();
    }
    Added now = old;
    if (active && !old.active) {
      now = declared(old.text);
    } else if (!active && old.active) {
      changing();
      old.files.remove();
      now = new Added(old.text, old.files, old.stubs, old.order, false);
    }
    added.put(id, now);
    return Optional.of(json(id, now));
  }

  /** Removes added stubs; returns false if there are none with this number. */
  synchronized boolean remove(int id) {
    Added old = added.remove(id);
    if (old != null) {
      old.files.remove();
    }
    return old != null;
  }

  /** Returns added stubs, with their numbers of calls. */
  Optional<Map<String, Object>> added(int id) {
    return Optional.ofNullable(added.get(id))
        .map(
            stubs -> {
              Map<String, Object> json = json(id, stubs);
              json.put("file", stubs.text);
              return json;
            });
  }

  /** Returns all added stubs. */
  List<Map<String, Object>> added() {
    return added.entrySet().stream().map(it -> json(it.getKey(), it.getValue())).toList();
  }

  /** Returns the stubs in force, with what has become of them; the added ones with their number. */
  List<Map<String, Object>> inForce() {
    Map<String, Deque<Integer>> ids = idsByStub();
    return net.get().inForce().stubs().stream()
        .map(
            status -> {
              Map<String, Object> json = new LinkedHashMap<>();
              json.put("name", Masking.url(status.stub().name()));
              json.put("request", Masking.url(status.request()));
              json.put("place", status.stub().place());
              json.put("scope", status.scope());
              json.put("calls", status.answers());
              json.put("beaten", status.beaten());
              status.beatenBy().ifPresent(it -> json.put("beatenBy", Masking.url(it.toString())));
              status.coveredBy().ifPresent(it -> json.put("coveredBy", Masking.url(it.toString())));
              json.put("waitsFor", status.obstacles().stream().map(Controlled::inWords).toList());
              Integer id = ids.getOrDefault(status.stub().toString(), new ArrayDeque<>()).poll();
              if (id != null) {
                json.put("id", id.toString());
                json.put("scope", "added here");
              }
              return json;
            })
        .toList();
  }

  /** Returns the cassettes and API descriptions in force. */
  Map<String, Object> sources() {
    return Sources.of(net.get().inForce(), calls().stream().toList());
  }

  /** Several may have the same name and place: both lists are in the order of declaration. */
  private Map<String, Deque<Integer>> idsByStub() {
    Map<String, Deque<Integer>> ids = new HashMap<>();
    added.entrySet().stream()
        .filter(entry -> entry.getValue().active)
        .sorted(Comparator.comparingInt(entry -> entry.getValue().order))
        .forEach(
            entry -> {
              for (Stub stub : entry.getValue().stubs) {
                ids.computeIfAbsent(stub.reference().toString(), it -> new ArrayDeque<>())
                    .add(entry.getKey());
              }
            });
    return ids;
  }

  private static String inWords(Check obstacle) {
    return obstacle.differences().stream()
        .map(it -> it.expected() + ": " + it.actual())
        .findFirst()
        .orElse(obstacle.expected());
  }

  private static Map<String, Object> json(int id, Added stubs) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("id", Integer.toString(id));
    json.put("active", stubs.active);
    List<Map<String, Object>> each = new ArrayList<>();
    for (Stub stub : stubs.stubs) {
      Map<String, Object> one = new LinkedHashMap<>();
      one.put("name", stub.toString());
      one.put("calls", stub.calls().count());
      each.add(one);
    }
    json.put("stubs", each);
    return json;
  }

  /** Returns the calls since the last clearing. */
  Calls calls() {
    long old = clearedUpTo;
    return old == 0
        ? all.get()
        : all.get().matching("a call since they were cleared", call -> call.number() > old);
  }

  void clearCalls() {
    clearedUpTo = all.get().stream().mapToLong(Call::number).max().orElse(clearedUpTo);
    clearings.incrementAndGet();
  }

  /** Returns how often calls were cleared. */
  long clearings() {
    return clearings.get();
  }

  /** Returns the call with this number, if it is still known. */
  Optional<Call> call(long number) {
    return calls().stream().filter(call -> call.number() == number).findFirst();
  }

  /** Returns what tells of new calls. */
  CallEvents events() {
    return events;
  }

  /** Removes added stubs and calls. */
  synchronized void reset() {
    try {
      changing().reset();
    } catch (AssertionFailedError told) {
      // Failures were reported when they happened; the scope is a new one.
    }
    added.clear();
    clearings.incrementAndGet();
  }

  /** Returns what a test asserts at its end. */
  Map<String, Object> verdict() {
    List<Map<String, Object>> unexpected =
        calls().stream().filter(CallJson::isUnexpected).map(CallJson::of).toList();
    List<String> failures =
        calls().stream().flatMap(call -> call.failure().stream()).distinct().toList();
    List<Map<String, Object>> unused = unused();
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("passed", unexpected.isEmpty() && failures.isEmpty() && unused.isEmpty());
    json.put("calls", calls().count());
    json.put("unexpectedCalls", unexpected);
    json.put("failures", failures);
    json.put("unusedStubs", unused);
    return json;
  }

  /** Returns the added stubs that no call has used; those of served files are for all tests. */
  private List<Map<String, Object>> unused() {
    List<Map<String, Object>> unused = new ArrayList<>();
    added.forEach(
        (id, stubs) -> {
          for (Stub stub : stubs.active ? stubs.stubs : List.<Stub>of()) {
            if (stub.calls().isEmpty()) {
              unused.add(Map.of("id", Integer.toString(id), "name", stub.toString()));
            }
          }
        });
    return unused;
  }

  void close() {
    events.close();
    try {
      net.get().close();
    } catch (AssertionError told) {
      // Failures were reported when they happened.
    }
  }
}
