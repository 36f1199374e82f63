package dev.cachette.calls;

import dev.cachette.match.Condition;
import dev.cachette.match.Narrowing;
import dev.cachette.match.RequestPattern;
import java.time.Duration;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.opentest4j.AssertionFailedError;

/**
 * The calls that were made, all of them or those that are meant: to be asserted, and to be read.
 *
 * <p>A live view: each method looks at the calls made until then. A call is in it before its caller
 * can see the answer. The log holds a limited number of calls; an assertion that could be wrong
 * because earlier ones were dropped fails and says so. Any thread may use it.
 *
 * <p>Every assertion throws {@link AssertionFailedError} where it does not hold, with the calls
 * that were made and, where one came near, what it lacks; and returns this object where it holds.
 */
public final class Calls implements Iterable<Call>, Narrowing<Calls> {

  private final Log log;
  private final Selection selection;

  private Calls(Log log, Selection selection) {
    this.log = log;
    this.selection = selection;
  }

  /** All calls of a log. */
  public static Calls of(Log log) {
    return new Calls(log, Selection.everything());
  }

  /** Those of these calls that fit a request line. */
  public Calls matching(String requestLine) {
    return matching(RequestPattern.of(requestLine));
  }

  /** Those of these calls that fit a pattern; their variables are those of this pattern. */
  public Calls matching(RequestPattern pattern) {
    return new Calls(log, selection.and(Selection.fitting(pattern)));
  }

  /**
   * Those of these calls that fulfil a predicate.
   *
   * @param description stands in messages for what is selected
   */
  public Calls matching(String description, Predicate<Call> predicate) {
    return new Calls(log, selection.and(Selection.chosen(description, predicate)));
  }

  /**
   * Those of these calls that a stub answered; its pattern explains why others are not among them.
   */
  public Calls answeredBy(StubReference stub, RequestPattern pattern) {
    return new Calls(log, selection.and(Selection.answeredBy(stub, pattern)));
  }

  @Override
  public Calls where(Condition... conditions) {
    if (conditions == null || Arrays.asList(conditions).contains(null)) {
      throw new IllegalArgumentException("where(conditions) was given null.");
    }
    return new Calls(log, selection.where(conditions));
  }

  /** These calls and those that fit a request line. */
  public Calls or(String requestLine) {
    return new Calls(log, selection.or(Selection.fitting(RequestPattern.of(requestLine))));
  }

  /**
   * Asserts that there were exactly so many.
   *
   * @throws IllegalArgumentException if the number is negative
   */
  public Calls assertCount(int expected) {
    return assertBetween(expected, expected);
  }

  /** Asserts that there were so many or more. */
  public Calls assertAtLeast(int least) {
    return assertBetween(least, Integer.MAX_VALUE);
  }

  /** Asserts that there were so many or fewer. */
  public Calls assertAtMost(int most) {
    return assertBetween(0, most);
  }

  /**
   * Asserts that their number is from the one to the other, both included.
   *
   * @throws IllegalArgumentException if a number is negative, or the first is the greater one
   */
  public Calls assertBetween(int least, int most) {
    if (least < 0 || most < least) {
      throw new IllegalArgumentException(
          "A number of calls is not negative, and a range begins with the smaller one: "
              + least
              + (most == least ? "." : ", " + most + "."));
    }
    Log.Entries entries = log.entries();
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
    return this;
  }

  /** Asserts that there was none. */
  public Calls assertNone() {
    return assertCount(0);
  }

  /** Asserts that a stub answered each of them. */
  public Calls assertAnswered() {
    Log.Entries entries = log.entries();
    List<Call> unanswered =
        selection.from(entries.calls()).stream().filter(call -> call.stub().isEmpty()).toList();
    if (!unanswered.isEmpty()) {
      throw new AssertionFailedError(
          String.format(
              "Expected that every call%s was answered by a stub, but %s not:\n\n%s",
              selection.of(),
              unanswered.size() == 1 ? "one was" : unanswered.size() + " were",
              CallList.of(unanswered)));
    }
    IncompleteLog.refuse(entries);
    return this;
  }

  /** Asserts that no other calls were made than these. */
  public Calls assertNoOthers() {
    Log.Entries entries = log.entries();
    List<Call> others = selection.others(entries.calls());
    if (!others.isEmpty()) {
      throw new AssertionFailedError(
          String.format(
              "Expected no other calls than%s, but there %s:\n\n%s",
              selection.of().replaceFirst("^ of", ""),
              others.size() == 1 ? "was one" : "were " + others.size(),
              CallList.of(others)));
    }
    IncompleteLog.refuse(entries);
    return this;
  }

  /**
   * Asserts that calls of these request lines are among these in this order; others may be, too.
   */
  public Calls assertInOrder(String... requestLines) {
    return assertInOrder(patterns(requestLines));
  }

  /** Asserts that calls of these patterns are among these in this order; others may be, too. */
  public Calls assertInOrder(RequestPattern... patterns) {
    return inOrder(Arrays.stream(patterns).map(Selection::fitting).toList(), true);
  }

  /** Asserts that calls of these stubs are among these in this order; others may be, too. */
  public Calls assertInOrder(CallGroup... stubs) {
    return inOrder(Arrays.stream(stubs).map(stub -> stub.calls().selection).toList(), true);
  }

  /** Asserts that these are one call of each of these request lines, in this order, and no more. */
  public Calls assertExactlyInOrder(String... requestLines) {
    return assertExactlyInOrder(patterns(requestLines));
  }

  /** Asserts that these are one call of each of these patterns, in this order, and no more. */
  public Calls assertExactlyInOrder(RequestPattern... patterns) {
    return inOrder(Arrays.stream(patterns).map(Selection::fitting).toList(), false);
  }

  /** Asserts that these are one call of each of these stubs, in this order, and no more. */
  public Calls assertExactlyInOrder(CallGroup... stubs) {
    return inOrder(Arrays.stream(stubs).map(stub -> stub.calls().selection).toList(), false);
  }

  /**
   * Waits until there are so many calls whose answer has been written to its end, or more. It does
   * not poll: a call that is answered wakes it.
   *
   * @param atMost how long to wait
   * @throws AssertionFailedError if the time is over before; the message says what had arrived
   * @throws IllegalArgumentException if a number is negative
   */
  public Calls await(int count, Duration atMost) {
    requirePossible("await", count, atMost);
    Log.Entries entries = log.await(held -> delivered(held).size() >= count, atMost);
    int arrived = selection.from(entries.calls()).size();
    int delivered = delivered(entries).size();
    if (delivered < count) {
      throw CountFailure.ofTimeout(count, atMost, arrived - delivered, selection, entries);
    }
    return this;
  }

  /**
   * Waits until so many calls have arrived, or more, answered or not: those that a gate holds, and
   * those that get no answer at all, included. It does not poll.
   *
   * @param atMost how long to wait
   * @throws AssertionFailedError if the time is over before; the message says what had arrived
   * @throws IllegalArgumentException if a number is negative
   */
  public Calls awaitArrival(int count, Duration atMost) {
    requirePossible("awaitArrival", count, atMost);
    Log.Entries entries = log.await(held -> selection.from(held.calls()).size() >= count, atMost);
    if (selection.from(entries.calls()).size() < count) {
      throw CountFailure.ofTimeout(count, atMost, 0, selection, entries);
    }
    return this;
  }

  private static void requirePossible(String method, int count, Duration atMost) {
    if (count < 0 || atMost == null || atMost.isNegative()) {
      throw new IllegalArgumentException(
          String.format(
              "%s(count, atMost) takes no negative number and no null: %d, %s",
              method, count, atMost));
    }
  }

  /** The one call there was; asserts that there was one and no more. */
  public Call only() {
    assertCount(1);
    return list().get(0);
  }

  /**
   * One of the calls; asserts that there were so many.
   *
   * @param index counted from 0
   * @throws IllegalArgumentException if the index is negative
   */
  public Call get(int index) {
    if (index < 0) {
      throw new IllegalArgumentException("Calls are counted from 0: " + index + ".");
    }
    IncompleteLog.refuse(log.entries());
    assertAtLeast(index + 1);
    return list().get(index);
  }

  /** The first call; asserts that there was one. */
  public Call first() {
    return get(0);
  }

  /** The last call so far; asserts that there was one. */
  public Call last() {
    assertAtLeast(1);
    List<Call> some = list();
    return some.get(some.size() - 1);
  }

  /** The calls, in the order they arrived. */
  public Stream<Call> stream() {
    return list().stream();
  }

  @Override
  public Iterator<Call> iterator() {
    return list().iterator();
  }

  private Calls inOrder(List<Selection> steps, boolean gaps) {
    if (steps.isEmpty()) {
      throw new IllegalArgumentException("An order of calls needs at least one call.");
    }
    Log.Entries entries = log.entries();
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

  private List<Call> delivered(Log.Entries entries) {
    return selection.from(entries.calls()).stream().filter(Call::isDelivered).toList();
  }

  private List<Call> list() {
    return selection.from(log.entries().calls());
  }

  private static RequestPattern[] patterns(String... requestLines) {
    return Arrays.stream(requestLines).map(RequestPattern::of).toArray(RequestPattern[]::new);
  }

  /** The calls, one a line. */
  @Override
  public String toString() {
    return CallList.of(list());
  }
}
