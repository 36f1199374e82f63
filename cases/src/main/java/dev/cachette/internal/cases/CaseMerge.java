// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.cases.CaseHar.Written;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Merges a case that was captured again into its file: what is the same but for what varies stays
 * as it is, and places that vary still do.
 */
public final class CaseMerge {

  private final Written old;

  /** The entries of the file, by their exchanges. */
  private final Map<CaseExchange, ObjectNode> entries = new IdentityHashMap<>();

  private CaseMerge(Written old) {
    this.old = old;
    List<CaseExchange> all = old.content().exchanges();
    for (int at = 0; at < all.size(); at++) {
      entries.put(all.get(at), old.entries().get(at));
    }
  }

  /** Returns the entries of the file with a fresh case; empty if nothing has changed. */
  public static Optional<List<ObjectNode>> merge(Written old, Case fresh) {
    CaseMerge merge = new CaseMerge(old);
    Case merged = merge.merged(fresh);
    List<CaseExchange> all = merged.exchanges();
    if (all.equals(old.content().exchanges())) {
      return Optional.empty();
    }
    List<ObjectNode> written = CaseHar.entries(merged);
    for (int at = 0; at < all.size(); at++) {
      ObjectNode kept = merge.entries.get(all.get(at));
      if (kept != null) {
        written.set(at, kept);
      }
    }
    return Optional.of(written);
  }

  private Case merged(Case fresh) {
    List<Case.Step> steps = new ArrayList<>();
    for (int at = 0; at < fresh.steps().size(); at++) {
      Case.Step step = fresh.steps().get(at);
      steps.add(
          at < old.content().steps().size() ? merged(old.content().steps().get(at), step) : step);
    }
    return new Case(fresh.name(), steps);
  }

  private static Case.Step merged(Case.Step before, Case.Step fresh) {
    Optional<CaseExchange> incoming =
        fresh.incoming().map(it -> before.incoming().map(was -> merged(was, it)).orElse(it));
    Map<Integer, Integer> pairs =
        CallPairs.ofExchanges(before.outgoing(), fresh.outgoing()).pairs();
    List<CaseExchange> outgoing = new ArrayList<>(fresh.outgoing());
    pairs.forEach(
        (was, now) ->
            outgoing.set(now, merged(before.outgoing().get(was), fresh.outgoing().get(now))));
    return new Case.Step(
        incoming, isSame(before.outgoing(), outgoing) ? before.outgoing() : outgoing);
  }

  /** Returns true if they are the same, in any order: calls in parallel come in another one. */
  private static boolean isSame(List<CaseExchange> before, List<CaseExchange> now) {
    return before.size() == now.size()
        && now.stream().allMatch(it -> before.stream().anyMatch(was -> was == it));
  }

  private static CaseExchange merged(CaseExchange before, CaseExchange now) {
    return isSame(before, now.exchange())
        ? before
        : now.varying(before.request(), before.response());
  }

  /** Returns true if an exchange is one of a case, but for what varies. */
  public static boolean isSame(CaseExchange before, Exchange now) {
    return before.exchange().outcome().equals(now.outcome())
        && CallComparison.isSameResource(before, now.request(), now.started())
        && CallComparison.differences(before, now.request(), now.started()).isEmpty()
        && (now.response().isEmpty() || ResponseComparison.findings("", before, now).isEmpty());
  }

  /** Returns true if a request is the one of a case, whatever its headers. */
  public static boolean isSameRequest(CaseExchange before, Exchange now) {
    return CallComparison.isSameResource(before, now.request(), now.started())
        && CallComparison.differences(before, now.request(), now.started()).stream()
            .allMatch(it -> it.at().startsWith("header "));
  }
}
