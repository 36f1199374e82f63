package dev.cachette.calls;

import dev.cachette.match.RequestPattern;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.opentest4j.AssertionFailedError;

/**
 * The calls that were made, all of them or those that fit a pattern: to be asserted, and to be
 * read.
 *
 * <p>A live view: each method looks at the calls made until then. A call is in it before its caller
 * can see the answer. Any thread may use it.
 */
public final class Calls implements Iterable<Call> {

  private final Supplier<List<Call>> log;
  private final Selection selection;

  private Calls(Supplier<List<Call>> log, Selection selection) {
    this.log = log;
    this.selection = selection;
  }

  /**
   * All calls of a log.
   *
   * @param log gives the calls made so far, in order; it is asked anew by every method
   */
  public static Calls of(Supplier<List<Call>> log) {
    return new Calls(log, Selection.everything());
  }

  /** Those of these calls that fit a pattern; their variables are those of this pattern. */
  public Calls matching(RequestPattern pattern) {
    return new Calls(this::list, Selection.fitting(pattern));
  }

  /**
   * Those of these calls that fulfil a predicate.
   *
   * @param description stands in messages for what is selected: {@code "calls of stub ..."}
   */
  public Calls matching(String description, Predicate<Call> predicate) {
    return new Calls(this::list, Selection.chosen(description, predicate));
  }

  /**
   * Asserts that there were exactly so many.
   *
   * @throws AssertionFailedError if there were more or fewer; the message lists the calls made
   * @throws IllegalArgumentException if the number is negative
   */
  public Calls assertCount(int expected) {
    if (expected < 0) {
      throw new IllegalArgumentException("A number of calls is not negative: " + expected + ".");
    }
    List<Call> all = log.get();
    List<Call> selected = selection.from(all);
    if (selected.size() != expected) {
      throw CountFailure.exactly(expected, selection, selected, all);
    }
    return this;
  }

  /**
   * Asserts that there was none.
   *
   * @throws AssertionFailedError if there was one; the message lists the calls made
   */
  public Calls assertNone() {
    return assertCount(0);
  }

  /**
   * The one call there was.
   *
   * @throws AssertionFailedError if there was none, or more than one
   */
  public Call only() {
    assertCount(1);
    return list().get(0);
  }

  /**
   * The first call.
   *
   * @throws AssertionFailedError if there was none
   */
  public Call first() {
    return someOrFail().get(0);
  }

  /**
   * The last call so far.
   *
   * @throws AssertionFailedError if there was none
   */
  public Call last() {
    List<Call> some = someOrFail();
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

  private List<Call> someOrFail() {
    List<Call> all = log.get();
    List<Call> selected = selection.from(all);
    if (selected.isEmpty()) {
      throw CountFailure.some(selection, all);
    }
    return selected;
  }

  private List<Call> list() {
    return selection.from(log.get());
  }

  /** The calls, one a line. */
  @Override
  public String toString() {
    return CallList.of(list());
  }

  /** A call seen through a pattern, whose variables it then has. */
  static Optional<Call> through(RequestPattern pattern, Call call) {
    Optional<Map<String, String>> variables = pattern.match(call.request());
    return variables.map(found -> found.isEmpty() ? call : new CallWithVariables(call, found));
  }
}
