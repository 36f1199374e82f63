// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.StoreException;
import dev.cachette.verification.VerificationResult;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** The contracts, labels and results of a store. */
public final class Library {

  private final FileStore files;

  Library(FileStore files) {
    this.files = files;
  }

  /** Returns what is in the store at this moment. */
  public Snapshot snapshot() {
    return files instanceof GitStore git
        ? git.inClone(clone -> Snapshot.of(new FolderStore(clone)))
        : Snapshot.of(files);
  }

  /** Adds contracts of a version. */
  public void publish(
      List<Contract> contracts, String version, Map<String, String> labels, Instant now) {
    Map<String, String> added = new LinkedHashMap<>();
    for (Contract contract : contracts) {
      added.put(Facts.contract(contract.provider(), contract.consumer(), version), contract.text());
    }
    contracts.stream()
        .map(Contract::consumer)
        .distinct()
        .forEach(consumer -> added.putAll(labels(consumer, version, labels, now)));
    files.add(added, "Publish " + contracts.get(0).consumer() + "@" + version);
  }

  /** Adds labels to a version. */
  public void label(String name, String version, Map<String, String> labels, Instant now) {
    files.add(labels(name, version, labels, now), "Label " + name + "@" + version);
  }

  private static Map<String, String> labels(
      String name, String version, Map<String, String> labels, Instant now) {
    Map<String, String> added = new LinkedHashMap<>();
    added.put(Facts.label(name, version, "version", "", now), "");
    labels.forEach((kind, value) -> added.put(Facts.label(name, version, kind, value, now), ""));
    return added;
  }

  /** Adds the results of a verification, for each consumer. */
  public void record(VerificationResult result, String version, Instant now) {
    Map<String, List<ClauseResult>> byConsumer = new TreeMap<>();
    result
        .clauses()
        .forEach(
            it ->
                byConsumer
                    .computeIfAbsent(
                        it.consumer() + "@" + it.consumerVersion(), key -> new ArrayList<>())
                    .add(it));
    Map<String, String> added = new LinkedHashMap<>();
    for (Snapshot.StoredContract each : snapshot().contracts()) {
      Facts.OfContract fact = each.fact();
      List<ClauseResult> clauses = byConsumer.get(fact.consumer() + "@" + fact.version());
      if (clauses == null || !fact.provider().equals(result.provider())) {
        continue;
      }
      boolean met = clauses.stream().allMatch(ClauseResult::isMet);
      added.put(
          Facts.result(fact, each.digest(), version, met, now), Json.text(json(clauses)) + "\n");
    }
    if (added.isEmpty()) {
      throw new StoreException(
          files + " has none of the contracts that were verified. Fix: verify those of the store.");
    }
    added.put(Facts.label(result.provider(), version, "version", "", now), "");
    files.add(added, "Verify " + result.provider() + "@" + version);
  }

  private static ObjectNode json(List<ClauseResult> clauses) {
    ObjectNode json = StubNodes.object();
    json.put("clauses", clauses.size());
    ArrayNode unmet = json.putArray("unmet");
    for (ClauseResult each : clauses) {
      if (!each.isMet()) {
        ObjectNode one = unmet.addObject().put("clause", each.clause());
        one.put("why", each.summary());
      }
    }
    return json;
  }

  @Override
  public String toString() {
    return files.toString();
  }
}
