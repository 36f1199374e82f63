// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.store.Snapshot.StoredContract;
import dev.cachette.internal.contract.store.Snapshot.StoredResult;
import dev.cachette.verification.Compatibility.Cell;
import dev.cachette.verification.Compatibility.Outcome;
import dev.cachette.verification.Compatibility.Pair;
import dev.cachette.verification.Compatibility.Version;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Makes the tables of consumer versions and provider versions. */
public final class Matrix {

  private Matrix() {}

  /** Returns a table for each consumer and provider. */
  public static List<Pair> of(Snapshot store) {
    Map<String, List<StoredContract>> byPair = new TreeMap<>();
    for (StoredContract each : store.contracts()) {
      String key = each.fact().provider() + " " + each.fact().consumer();
      byPair.computeIfAbsent(key, it -> new ArrayList<>()).add(each);
    }
    return byPair.values().stream().map(it -> pair(store, it)).toList();
  }

  private static Pair pair(Snapshot store, List<StoredContract> contracts) {
    String consumer = contracts.get(0).fact().consumer();
    String provider = contracts.get(0).fact().provider();
    List<String> order = store.versions(consumer);
    List<StoredContract> rows = new ArrayList<>(contracts);
    rows.sort(
        (one, other) ->
            order.indexOf(one.fact().version()) - order.indexOf(other.fact().version()));
    List<String> columns = store.versions(provider);
    List<Cell> cells = new ArrayList<>();
    for (StoredContract row : rows) {
      columns.forEach(column -> cells.add(cell(row, column, store.result(row, column))));
    }
    return new Pair(
        consumer,
        provider,
        rows.stream().map(it -> version(store, consumer, it.fact().version())).toList(),
        columns.stream().map(it -> version(store, provider, it)).toList(),
        cells);
  }

  private static Version version(Snapshot store, String name, String number) {
    return new Version(number, store.labelsOf(name, number));
  }

  private static Cell cell(StoredContract row, String column, Optional<StoredResult> result) {
    String consumerVersion = row.fact().version();
    return result
        .map(
            it ->
                new Cell(
                    consumerVersion,
                    column,
                    it.fact().met() ? Outcome.MET : Outcome.UNMET,
                    Optional.of(it.fact().at()),
                    it.unmet()))
        .orElseGet(
            () -> new Cell(consumerVersion, column, Outcome.UNKNOWN, Optional.empty(), List.of()));
  }
}
