// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.PlainForms;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/**
 * Chooses which exchange of a case answers an outgoing call: one that was not used and is the same,
 * else the closest for the same resource, so that the application goes on and one change has one
 * finding. Remembers what was asked. Thread-safe.
 */
public final class CallChoice implements LoadedCassette.Choice {

  private final Clock clock;
  private final OwnOrigin ownOrigin;
  private final Predicate<Request> isOfOthers;
  private final Set<Integer> used = new TreeSet<>();
  private final List<Asked> asked = new ArrayList<>();

  /** The exchanges of a file, in their order. */
  private List<CaseExchange> exchanges = List.of();

  /** The indexes of those from which it chooses. */
  private Set<Integer> choosable = Set.of();

  /**
   * An outgoing call that has arrived.
   *
   * @param request the request, with placeholders for secrets
   * @param at when it arrived
   */
  public record Asked(Request request, Instant at) {}

  /**
   * Creates it without exchanges.
   *
   * @param ownOrigin the origin of the application
   * @param isOfOthers whether a call belongs elsewhere, unless there is an exchange for it
   */
  public CallChoice(Clock clock, OwnOrigin ownOrigin, Predicate<Request> isOfOthers) {
    this.clock = clock;
    this.ownOrigin = ownOrigin;
    this.isOfOthers = isOfOthers;
  }

  /**
   * Chooses from other exchanges from now on, of which none was used.
   *
   * @param all the exchanges of a file, in their order
   * @param indexes those from which to choose
   */
  public synchronized void begin(List<CaseExchange> all, Set<Integer> indexes) {
    exchanges = List.copyOf(all);
    choosable = Set.copyOf(indexes);
    used.clear();
    asked.clear();
  }

  /** Returns the calls that have arrived, in order. */
  public synchronized List<Asked> asked() {
    return List.copyOf(asked);
  }

  @Override
  public synchronized Optional<Integer> of(Request arrived) {
    Request request = PlainForms.of(ownOrigin.in(arrived));
    Instant now = clock.instant();
    List<Integer> same =
        choosable.stream()
            .sorted()
            .filter(at -> CallComparison.isSameResource(exchanges.get(at), request, now))
            .toList();
    if (same.isEmpty() && isOfOthers.test(request)) {
      return Optional.empty();
    }
    asked.add(new Asked(request, now));
    notifyAll();
    Comparator<Integer> closest =
        Comparator.comparing((Integer at) -> used.contains(at) ? 1 : 0)
            .thenComparing(
                at -> CallComparison.differences(exchanges.get(at), request, now).size());
    Optional<Integer> chosen = same.stream().min(closest);
    chosen.ifPresent(used::add);
    return chosen;
  }

  /**
   * Waits until as many calls have arrived as were captured.
   *
   * @return false if the time is over
   */
  public synchronized boolean awaitAll(long millis) throws InterruptedException {
    long end = System.nanoTime() + millis * 1_000_000;
    while (asked.size() < choosable.size()) {
      long left = (end - System.nanoTime()) / 1_000_000;
      if (left <= 0) {
        return false;
      }
      wait(left);
    }
    return true;
  }
}
