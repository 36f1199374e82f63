// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.Exchange;
import dev.cachette.internal.cases.CaseExchange;
import dev.cachette.internal.cases.CaseMerge;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** An incoming call while it is captured, with the outgoing calls that it has caused. */
final class Draft {

  private final long number;
  private final List<Outgoing> outgoing = new ArrayList<>();
  private Optional<Exchange> incoming = Optional.empty();

  /** How many of the outgoing calls are known to be different from each other. */
  private int distinct;

  /** The same call once more, to learn what varies. */
  private Optional<Draft> repeated = Optional.empty();

  /** An outgoing call; its exchange is known once it has ended. */
  static final class Outgoing {

    private Optional<Exchange> exchange = Optional.empty();
  }

  /**
   * Creates it without an exchange.
   *
   * @param number the number of the incoming call; 0 for outgoing calls without one
   */
  Draft(long number) {
    this.number = number;
  }

  long number() {
    return number;
  }

  synchronized Outgoing begin() {
    Outgoing begun = new Outgoing();
    outgoing.add(begun);
    return begun;
  }

  synchronized void end(Outgoing call, Exchange exchange) {
    call.exchange = Optional.of(exchange);
  }

  /** Keeps the same outgoing call once, if there is no incoming one: a timer makes it again. */
  synchronized void dropRepeated() {
    List<Outgoing> before = new ArrayList<>(outgoing.subList(0, distinct));
    List<Outgoing> fresh = new ArrayList<>(outgoing.subList(distinct, outgoing.size()));
    for (Outgoing each : List.copyOf(fresh)) {
      if (each.exchange.isPresent()) {
        fresh.remove(each);
        if (!isAmong(before, each.exchange.get())) {
          before.add(each);
        }
      }
    }
    distinct = before.size();
    outgoing.clear();
    outgoing.addAll(before);
    outgoing.addAll(fresh);
  }

  private static boolean isAmong(List<Outgoing> some, Exchange exchange) {
    return some.stream()
        .flatMap(it -> it.exchange.stream())
        .anyMatch(it -> CaseMerge.isSame(CaseExchange.of(it), exchange));
  }

  synchronized void end(Exchange exchange) {
    incoming = Optional.of(exchange);
  }

  synchronized void repeatedBy(Draft other) {
    repeated = Optional.of(other);
  }

  synchronized Optional<Draft> repeated() {
    return repeated;
  }

  /** Returns the incoming exchange; empty while it is not complete. */
  synchronized Optional<Exchange> incoming() {
    return incoming;
  }

  /** Returns the outgoing exchanges that are complete, in the order in which they began. */
  synchronized List<Exchange> outgoing() {
    return outgoing.stream()
        .flatMap(it -> it.exchange.stream())
        .sorted(Comparator.comparing(Exchange::started))
        .toList();
  }

  /** Returns true if an outgoing call has begun and not ended. */
  synchronized boolean isUnfinished() {
    return outgoing.stream().anyMatch(it -> it.exchange.isEmpty());
  }

  /** Returns all exchanges, the incoming one first. */
  synchronized List<Exchange> exchanges() {
    return Stream.concat(incoming.stream(), outgoing().stream()).toList();
  }
}
