// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.http.Uri;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.Condition;
import dev.cachette.match.RequestConditions;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.opentest4j.AssertionFailedError;

/**
 * Calls of the log, all or a selection, to assert and to read.
 *
 * <p>A live view: each method looks at the calls made so far. A call is in the log before its
 * caller can see the answer. The log holds a limited number of calls; an assertion that could be
 * wrong because earlier calls were dropped fails and says so. Thread-safe.
 *
 * <p>Every assertion throws {@link AssertionFailedError} if it does not hold, with the actual calls
 * and, if one is similar, how it differs; otherwise it returns this object.
 */
public final class Calls implements Iterable<Call>, RequestConditions<Calls> {

  private final Log<Call> log;
  private final Selection selection;

  private Calls(Log<Call> log, Selection selection) {
    this.log = log;
    this.selection = selection;
  }

  /** Returns all calls of a log. */
  static Calls of(Log<Call> log) {
    return new Calls(log, Selection.everything());
  }

  /** Returns those of these calls that match a request line. */
  public Calls matching(String requestLine) {
    return matching(RequestPattern.of(requestLine));
  }

  /**
   * Returns those of these calls that match a pattern; their variables are those of this pattern.
   */
  public Calls matching(RequestPattern pattern) {
    return new Calls(log, selection.and(Selection.fitting(pattern)));
  }

  /**
   * Returns those of these calls that satisfy a predicate.
   *
   * @param description names the selection in messages
   */
  public Calls matching(String description, Predicate<Call> predicate) {
    return new Calls(log, selection.and(Selection.chosen(description, predicate)));
  }

  /**
   * Returns those of these calls that a stub answered; its pattern explains why others are not
   * included.
   */
  Calls answeredBy(StubReference stub, RequestPattern pattern) {
    return new Calls(log, selection.and(Selection.answeredBy(stub, pattern)));
  }

  @Override
  public Calls where(Condition... conditions) {
    if (conditions == null || Arrays.asList(conditions).contains(null)) {
      throw Refusals.argument("where(conditions) was given null.");
    }
    return new Calls(log, selection.where(conditions));
  }

  /** Returns these calls and those that match a request line. */
  public Calls or(String requestLine) {
    return new Calls(log, selection.or(Selection.fitting(RequestPattern.of(requestLine))));
  }

  /**
   * Returns the attempts to call a service that met a fault before there was a request, and so are
   * not calls.
   *
   * @param origin scheme, host and port: {@code https://berths.example}
   * @throws IllegalArgumentException if it is not an origin
   */
  public Attempts attempts(String origin) {
    return new Attempts(log, Uri.parseOrigin(origin));
  }

  /** Returns the number of calls so far, as far as the log holds them. */
  public int count() {
    return list().size();
  }

  /** Returns true if there are no calls so far, as far as the log holds them. */
  public boolean isEmpty() {
    return list().isEmpty();
  }

  /**
   * Asserts the exact number of calls.
   *
   * @throws IllegalArgumentException if the number is negative
   */
  public Calls assertCount(int expected) {
    return assertBetween(expected, expected);
  }

  /** Asserts that there were at least this many calls. */
  public Calls assertAtLeast(int least) {
    return assertBetween(least, Integer.MAX_VALUE);
  }

  /** Asserts that there were at most this many calls. */
  public Calls assertAtMost(int most) {
    return assertBetween(0, most);
  }

  /**
   * Asserts that the number of calls is in a range, both ends included.
   *
   * @throws IllegalArgumentException if a number is negative, or the first is greater
   */
  public Calls assertBetween(int least, int most) {
    if (least < 0 || most < least) {
      throw Refusals.argument(
          "A number of calls must not be negative, and a range begins with the smaller number: "
              + least
              + (most == least ? "." : ", " + most + "."));
    }
    Log.Entries<Call> entries = log.entries();
    List<Call> selected = selection.from(entries.calls());
    if (selected.size() > most) {
      throw CountFailure.of(least, most, selection, entries);
    }
    boolean enough = selected.size() >= least;
    if (entries.dropped() > 0 && !(enough && most == Integer.MAX_VALUE)) {
      throw IncompleteLog.failure(entries);
    }
    if (!enough) {
      throw CountFailure.of(least, most, selection, entries);
    }
    if (most == 0) {
      CountFailure.nearMiss(selection, entries).ifPresent(log::warn);
    }
    return this;
  }

  /** Asserts that there were no calls. */
  public Calls assertNone() {
    return assertCount(0);
  }

  /** Asserts that each call was answered by a stub. */
  public Calls assertAnswered() {
    Log.Entries<Call> entries = log.entries();
    List<Call> unanswered =
        selection.from(entries.calls()).stream().filter(call -> call.stub().isEmpty()).toList();
    if (!unanswered.isEmpty()) {
      throw Failed.of(
          String.format(
              "Expected that every call%s was answered by a stub, but %s not:\n\n%s",
              selection.of(),
              unanswered.size() == 1 ? "one was" : unanswered.size() + " were",
              CallList.of(unanswered)));
    }
    IncompleteLog.refuse(entries);
    return this;
  }

  /** Asserts that there were no other calls than these. */
  public Calls assertNoOthers() {
    Log.Entries<Call> entries = log.entries();
    List<Call> others = selection.others(entries.calls());
    if (!others.isEmpty()) {
      throw Failed.of(
          String.format(
              "Expected no calls other than%s, but there %s:\n\n%s",
              selection.of().replaceFirst("^ of", ""),
              others.size() == 1 ? "was one" : "were " + others.size(),
              CallList.of(others)));
    }
    IncompleteLog.refuse(entries);
    return this;
  }

  /**
   * Asserts that these calls include calls of these request lines, in this order; other calls are
   * allowed in between.
   */
  public Calls assertInOrder(String... requestLines) {
    return assertInOrder(patterns(requestLines));
  }

  /**
   * Asserts that these calls include calls of these patterns, in this order; other calls are
   * allowed in between.
   */
  public Calls assertInOrder(RequestPattern... patterns) {
    return inOrder(Arrays.stream(patterns).map(Selection::fitting).toList(), true);
  }

  /**
   * Asserts that these calls include calls of these stubs, in this order; other calls are allowed
   * in between.
   */
  public Calls assertInOrder(CallGroup... stubs) {
    return inOrder(Arrays.stream(stubs).map(stub -> stub.calls().selection).toList(), true);
  }

  /**
   * Asserts that these calls are exactly one call of each of these request lines, in this order.
   */
  public Calls assertExactlyInOrder(String... requestLines) {
    return assertExactlyInOrder(patterns(requestLines));
  }

  /** Asserts that these calls are exactly one call of each of these patterns, in this order. */
  public Calls assertExactlyInOrder(RequestPattern... patterns) {
    return inOrder(Arrays.stream(patterns).map(Selection::fitting).toList(), false);
  }

  /** Asserts that these calls are exactly one call of each of these stubs, in this order. */
  public Calls assertExactlyInOrder(CallGroup... stubs) {
    return inOrder(Arrays.stream(stubs).map(stub -> stub.calls().selection).toList(), false);
  }

  /**
   * Waits until there are this many calls, or more, whose answer has been written completely. It
   * does not poll: a completed call wakes it.
   *
   * @param atMost the timeout
   * @throws AssertionFailedError after the timeout; the message says what had arrived
   * @throws IllegalArgumentException if a number is negative
   */
  public Calls await(int count, Duration atMost) {
    requirePossible("await", count, atMost);
    Tally tally = new Tally(selection, Call::isDelivered);
    Log.Entries<Call> entries = log.await(held -> tally.of(held) >= count, atMost);
    // Once: a call may be delivered while the failure is written.
    int delivered = tally.of(entries);
    if (delivered < count) {
      int pending = Math.max(0, selection.from(entries.calls()).size() - delivered);
      throw CountFailure.ofTimeout(count, atMost, pending, selection, entries);
    }
    return this;
  }

  /**
   * Waits until this many calls, or more, have arrived, answered or not: calls that a gate holds,
   * that are being computed, or that never get an answer count. So {@link
   * dev.cachette.answer.Gate#release} after it lets them go. It does not poll.
   *
   * @param atMost the timeout
   * @throws AssertionFailedError after the timeout; the message says what had arrived
   * @throws IllegalArgumentException if a number is negative
   */
  public Calls awaitArrival(int count, Duration atMost) {
    requirePossible("awaitArrival", count, atMost);
    // A call that has arrived may not have got anywhere yet, not even to the gate that holds it.
    Tally tally = new Tally(selection, call -> call.state() != Call.State.ARRIVED);
    Log.Entries<Call> entries = log.await(held -> tally.of(held) >= count, atMost);
    if (tally.of(entries) < count) {
      throw CountFailure.ofTimeout(count, atMost, 0, selection, entries);
    }
    return this;
  }

  private static void requirePossible(String method, int count, Duration atMost) {
    if (count < 0 || atMost == null || atMost.isNegative()) {
      throw Refusals.argument(
          String.format(
              "%s(count, atMost) needs a count and a timeout that are not negative and not null:"
                  + " %d, %s",
              method, count, atMost));
    }
  }

  /** Returns the only call; asserts that there was exactly one. */
  public Call only() {
    assertCount(1);
    return list().get(0);
  }

  /**
   * Returns a call by its index; asserts that there were enough calls.
   *
   * @param index counted from 0
   * @throws IllegalArgumentException if the index is negative
   */
  public Call get(int index) {
    if (index < 0) {
      throw Refusals.argument("The index of a call is counted from 0: " + index + ".");
    }
    IncompleteLog.refuse(log.entries());
    assertAtLeast(index + 1);
    return list().get(index);
  }

  /** Returns the first call; asserts that there was one. */
  public Call first() {
    return get(0);
  }

  /** Returns the last call so far; asserts that there was one. */
  public Call last() {
    assertAtLeast(1);
    List<Call> some = list();
    return some.get(some.size() - 1);
  }

  /** Returns the calls, in order of arrival. */
  public Stream<Call> stream() {
    return list().stream();
  }

  @Override
  public Iterator<Call> iterator() {
    return list().iterator();
  }

  private Calls inOrder(List<Selection> steps, boolean gaps) {
    if (steps.isEmpty()) {
      throw Refusals.argument("An order of calls needs at least one call.");
    }
    Log.Entries<Call> entries = log.entries();
    List<Call> selected = selection.from(entries.calls());
    CallOrder order = CallOrder.of(steps, selected, gaps);
    boolean certain = entries.dropped() == 0 || gaps && order.holds();
    if (!certain) {
      throw IncompleteLog.failure(entries);
    }
    if (!order.holds()) {
      throw order.failure();
    }
    return this;
  }

  private List<Call> list() {
    return selection.from(log.entries().calls());
  }

  private static RequestPattern[] patterns(String... requestLines) {
    return Arrays.stream(requestLines).map(RequestPattern::of).toArray(RequestPattern[]::new);
  }

  /** Returns the calls, one per line. */
  @Override
  public String toString() {
    return CallList.of(list());
  }
}
