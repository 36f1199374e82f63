// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import dev.cachette.Cachette;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.sweep.SweepSettings;
import dev.cachette.internal.sweep.Sweeper;
import dev.cachette.match.RequestPattern;
import dev.cachette.sweep.result.SweepFault;
import dev.cachette.sweep.result.SweepResult;
import dev.cachette.sweep.result.SweptRun;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DynamicNode;

/**
 * Runs a scenario that passes again, with each fault at each of its calls, and judges what the code
 * does:
 *
 * <pre>{@code
 * @TestFactory
 * Stream<DynamicNode> arrivalSurvivesFaults(Cachette net) {
 *   return FaultSweep.of(net, () -> desk.planArrival("Kittiwake"))
 *       .result(plan -> assertEquals("B-12", plan.berth()))
 *       .allow(ArrivalFailed.class)
 *       .invariant("one booking", () -> net.calls("POST https://berths.example/v1/bookings")
 *           .assertAtMost(1))
 *       .tests();
 * }
 * }</pre>
 *
 * <p>First the scenario runs twice without a fault, with the stubs or cassettes of the test, to
 * learn its calls; identifiers in paths may differ from run to run. Each of the other runs is in a
 * scope of its own: stubs begin again, one call gets a fault, all others get what they get anyway.
 * A run is wrong if it
 *
 * <ul>
 *   <li>throws an exception that is not {@linkplain #allow allowed}, or one of a parser,
 *   <li>returns a {@linkplain #result wrong result}, or swallows the fault,
 *   <li>breaks an {@linkplain #invariant invariant},
 *   <li>repeats a call that is not idempotent after the service may have processed it,
 *   <li>makes more than the allowed {@linkplain #retries retries},
 *   <li>leaves a call undone, makes a call that nothing answers, or
 *   <li>does not end {@linkplain #within in time}.
 * </ul>
 *
 * <p>Nothing waits in real time if the timer of its client is known (see {@link
 * dev.cachette.TestClock}): the clock of the session is moved past its timeout, and past the delay
 * of a slow response.
 *
 * <p>The scenario runs on a thread of its own, one run after the other. For one thread.
 *
 * @param <T> the result of the scenario
 */
public final class FaultSweep<T> implements Iterable<DynamicNode> {

  /** The system property that chooses the only run. */
  static final String ONLY = "cachette.sweep.only";

  private static final int MOST_MEMBERS = 1_000;

  private final Cachette net;
  private final Callable<T> scenario;
  private final Set<SweepFault> faults = EnumSet.allOf(SweepFault.class);
  private final List<RequestPattern> calls = new ArrayList<>();
  private final Set<Class<? extends Throwable>> allowed = new LinkedHashSet<>();
  private final Map<String, Runnable> invariants = new LinkedHashMap<>();
  private final List<RequestPattern> mayRepeat = new ArrayList<>();
  private final List<RequestPattern> mayLeaveOut = new ArrayList<>();
  private @Nullable Consumer<T> result;
  private String name = "The fault sweep";
  private int retries = 3;
  private Duration within = Duration.ofSeconds(5);
  private boolean lasting;
  private Duration slow = Duration.ofSeconds(2);
  private int members = 100;
  private long seed = 1;
  private @Nullable String only;

  private FaultSweep(Cachette net, Callable<T> scenario) {
    this.net = Refusals.given("of(net, scenario)", net);
    this.scenario = Refusals.given("of(net, scenario)", scenario);
  }

  /**
   * Returns a sweep of a scenario: code under test that passes with the stubs of the test.
   *
   * @param net the session, whose stubs are declared
   */
  public static <T> FaultSweep<T> of(Cachette net, Callable<T> scenario) {
    return new FaultSweep<>(net, scenario);
  }

  /** Sets its name in texts. */
  public FaultSweep<T> named(String newName) {
    name = Refusals.given("named(name)", newName);
    return this;
  }

  /**
   * Tries only these faults.
   *
   * @throws IllegalArgumentException if there is none
   */
  public FaultSweep<T> faults(SweepFault... some) {
    List<SweepFault> wanted = some("faults(faults)", some);
    faults.clear();
    faults.addAll(wanted);
    return this;
  }

  /** Does not try these faults. */
  public FaultSweep<T> except(SweepFault... some) {
    some("except(faults)", some).forEach(faults::remove);
    return this;
  }

  /**
   * Gives faults only to these calls.
   *
   * @param requestLines request lines: {@code POST https://berths.example/{+rest}}; several add up
   * @throws IllegalArgumentException if one is malformed
   */
  public FaultSweep<T> callsTo(String... requestLines) {
    calls.addAll(patterns("callsTo(requestLines)", requestLines));
    return this;
  }

  /** Lets the scenario throw exceptions of these classes. */
  @SafeVarargs
  public final FaultSweep<T> allow(Class<? extends Throwable>... exceptions) {
    for (Class<? extends Throwable> each : exceptions) {
      allowed.add(Refusals.given("allow(exceptions)", each));
    }
    return this;
  }

  /**
   * Checks each result that the scenario returns.
   *
   * @param check throws if a result is wrong, as assertions do
   */
  public FaultSweep<T> result(Consumer<T> check) {
    result = Refusals.given("result(check)", check);
    return this;
  }

  /**
   * Checks something after each run, whether the scenario has returned or thrown. The calls of the
   * session are those of the run.
   *
   * @param what what holds, for the text of a failure: {@code one booking at most}
   * @param check throws if it does not hold
   */
  public FaultSweep<T> invariant(String what, Runnable check) {
    invariants.put(
        Refusals.given("invariant(what, check)", what),
        Refusals.given("invariant(what, check)", check));
    return this;
  }

  /**
   * Lets calls be repeated though their method is not idempotent, since the service recognizes
   * them.
   *
   * @throws IllegalArgumentException if a request line is malformed
   */
  public FaultSweep<T> mayRepeat(String... requestLines) {
    mayRepeat.addAll(patterns("mayRepeat(requestLines)", requestLines));
    return this;
  }

  /**
   * Lets calls be left out if another one has failed, and the scenario returns nevertheless.
   *
   * @throws IllegalArgumentException if a request line is malformed
   */
  public FaultSweep<T> mayLeaveOut(String... requestLines) {
    mayLeaveOut.addAll(patterns("mayLeaveOut(requestLines)", requestLines));
    return this;
  }

  /**
   * Limits how often a call may be made again; 3 by default.
   *
   * @throws IllegalArgumentException if the number is negative
   */
  public FaultSweep<T> retries(int most) {
    require(most >= 0, "retries(most) needs a number from 0, not " + most + ".");
    retries = most;
    return this;
  }

  /**
   * Limits how long a run may take; 5 seconds by default. It is interrupted then.
   *
   * @throws IllegalArgumentException if the duration is not positive
   */
  public FaultSweep<T> within(Duration limit) {
    requirePositive("within(limit)", limit);
    within = limit;
    return this;
  }

  /** Lets each fault last: all calls of the same kind from this one on get it. */
  public FaultSweep<T> lasting() {
    lasting = true;
    return this;
  }

  /**
   * Sets the delay of {@link SweepFault#SLOW}, by the clock of the session; 2 seconds by default.
   *
   * @throws IllegalArgumentException if the duration is not positive
   */
  public FaultSweep<T> slow(Duration delay) {
    requirePositive("slow(delay)", delay);
    slow = delay;
    return this;
  }

  /**
   * Limits how many members of a response are missing, null or huge in turn; 100 by default. If a
   * response has more, {@link #seed} chooses among them, and the table says so. Of an array, the
   * first element is changed.
   *
   * @param most 1 to 1,000
   * @throws IllegalArgumentException if the number is out of range
   */
  public FaultSweep<T> members(int most) {
    require(
        most >= 1 && most <= MOST_MEMBERS,
        "members(most) needs a number from 1 to " + MOST_MEMBERS + ", not " + most + ".");
    members = most;
    return this;
  }

  /** Sets the seed of what is chosen; 1 by default. */
  public FaultSweep<T> seed(long chosen) {
    seed = chosen;
    return this;
  }

  /**
   * Makes one run only, as the text of a failure names it: {@code 2/NO_RESPONSE}. The system
   * property {@code cachette.sweep.only} does the same.
   */
  public FaultSweep<T> only(String id) {
    only = Refusals.given("only(id)", id);
    return this;
  }

  /**
   * Makes all runs.
   *
   * @throws IllegalStateException if the scenario does not pass without a fault, or makes no call
   */
  public SweepResult run() {
    Sweeper<T> sweeper = sweeper();
    List<SweptRun> runs = sweeper.learn().stream().map(Sweeper<T>.Planned::run).toList();
    return new SweepResult(name, runs, sweeper.omitted());
  }

  /**
   * Returns a dynamic test for each run, grouped by call; and at the end one with the table, which
   * fails if one of the others did.
   *
   * @throws IllegalStateException if the scenario does not pass without a fault, or makes no call
   */
  public Stream<DynamicNode> tests() {
    return SweepTests.of(name, sweeper());
  }

  /** Returns the tests, so that a test factory can return this object. */
  @Override
  public java.util.Iterator<DynamicNode> iterator() {
    return tests().iterator();
  }

  private Sweeper<T> sweeper() {
    String chosen = only == null ? System.getProperty(ONLY) : only;
    return new Sweeper<>(
        net,
        scenario,
        Optional.ofNullable(result),
        new SweepSettings(
            name,
            Set.copyOf(faults),
            List.copyOf(calls),
            Set.copyOf(allowed),
            Collections.unmodifiableMap(new LinkedHashMap<>(invariants)),
            List.copyOf(mayRepeat),
            List.copyOf(mayLeaveOut),
            retries,
            within,
            lasting,
            slow,
            members,
            seed,
            Optional.ofNullable(chosen)));
  }

  private static List<RequestPattern> patterns(String what, String... requestLines) {
    return some(what, requestLines).stream().map(RequestPattern::of).toList();
  }

  private static <E> List<E> some(String what, E[] given) {
    require(
        given != null && given.length > 0 && !Arrays.asList(given).contains(null),
        what + " needs at least one, and none that is null.");
    return List.of(given);
  }

  private static void requirePositive(String what, Duration duration) {
    require(
        !Refusals.given(what, duration).isNegative() && !duration.isZero(),
        what + " needs a positive duration, not " + duration + ".");
  }

  private static void require(boolean isRight, String message) {
    if (!isRight) {
      throw Refusals.argument(message);
    }
  }
}
