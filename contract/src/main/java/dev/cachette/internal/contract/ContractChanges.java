// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.SchemaText;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.verification.ContractChange;
import dev.cachette.verification.GivenState;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Finds what has changed from one version of a contract to another, clause by clause. */
public final class ContractChanges {

  private final String provider;
  private final List<ContractChange> changes = new ArrayList<>();

  private ContractChanges(String provider) {
    this.provider = provider;
  }

  /** Returns the changes, by the names of the clauses. */
  public static List<ContractChange> of(Contract before, Contract after) {
    ContractChanges changes = new ContractChanges(after.provider());
    Map<String, Clause> old = byName(before);
    Map<String, Clause> now = byName(after);
    TreeSet<String> names = new TreeSet<>(old.keySet());
    names.addAll(now.keySet());
    Map<String, String> renamed = renamed(old, now);
    for (String name : names) {
      Clause one = old.get(name);
      Clause other = now.get(name);
      if (renamed.containsValue(name)) {
        continue;
      }
      if (other == null && renamed.containsKey(name)) {
        String fresh = renamed.get(name);
        changes.add(fresh, "name", name, fresh, false);
        changes.compare(fresh, one, now.get(fresh));
        continue;
      }
      if (one == null) {
        changes.add(name, "", "", line(other), true);
      } else if (other == null) {
        changes.add(name, "", line(one), "", false);
      } else {
        changes.compare(name, one, other);
      }
    }
    return changes.changes;
  }

  /** Returns the new names of clauses that are gone, if one of the same request is new. */
  private static Map<String, String> renamed(Map<String, Clause> old, Map<String, Clause> now) {
    Map<String, String> renamed = new LinkedHashMap<>();
    old.forEach(
        (name, clause) ->
            now.values().stream()
                .filter(it -> !now.containsKey(name) && !old.containsKey(it.name()))
                .filter(it -> !renamed.containsValue(it.name()))
                .filter(it -> it.request().equals(clause.request()))
                .filter(it -> it.given().equals(clause.given()) && it.status() == clause.status())
                .findFirst()
                .ifPresent(it -> renamed.put(name, it.name())));
    return renamed;
  }

  private static Map<String, Clause> byName(Contract contract) {
    Map<String, Clause> clauses = new LinkedHashMap<>();
    contract.clauses().forEach(it -> clauses.put(it.name(), it));
    return clauses;
  }

  private static String line(Clause clause) {
    return clause.request().path("request").asText() + " with status " + clause.status();
  }

  private void add(String clause, String place, String before, String after, boolean asksMore) {
    changes.add(new ContractChange(provider, clause, place, before, after, asksMore));
  }

  private void compare(String name, Clause before, Clause after) {
    different(name, "given", states(before), states(after));
    request(name, before, after);
    different(name, "status", Integer.toString(before.status()), Integer.toString(after.status()));
    different(name, "media type", before.shape().mediaType(), after.shape().mediaType());
    TreeSet<String> headers = new TreeSet<>(before.shape().headers().keySet());
    headers.addAll(after.shape().headers().keySet());
    for (String header : headers) {
      schema(
          name,
          "header " + header,
          Optional.ofNullable(before.shape().headers().get(header)),
          Optional.ofNullable(after.shape().headers().get(header)));
    }
    schema(name, "body", before.shape().body(), after.shape().body());
  }

  private static String states(Clause clause) {
    return clause.given().stream().map(GivenState::toString).collect(Collectors.joining(" and "));
  }

  private void different(String clause, String place, String before, String after) {
    if (!before.equals(after)) {
      // A state less, or a body less, is less to do.
      add(clause, place, before, after, !after.isEmpty());
    }
  }

  /** Reports another request: by its conditions, or by what was sent, whatever its values. */
  private void request(String clause, Clause before, Clause after) {
    String old = before.request().path("request").asText();
    String now = after.request().path("request").asText();
    if (!old.equals(now)) {
      add(clause, "request", old, now, true);
    } else if (!before.request().equals(after.request())) {
      add(clause, "request", conditions(before), conditions(after), true);
    } else if (!sent(before).equals(sent(after))) {
      add(clause, "example", "the body that is sent", "one of another shape", true);
    }
  }

  private static String conditions(Clause clause) {
    JsonNode conditions = clause.request().deepCopy().without("request");
    return conditions.isEmpty() ? "no conditions" : conditions.toString();
  }

  private static JsonNode sent(Clause clause) {
    return PlainBodies.json(clause.example().request().headers(), clause.example().request().body())
        .<JsonNode>map(TypeSchema::of)
        .orElseGet(StubNodes::object);
  }

  private void schema(
      String clause, String place, Optional<JsonNode> before, Optional<JsonNode> after) {
    if (before.isEmpty() && after.isPresent()) {
      add(clause, place, "", SchemaText.of(after.get()), true);
    } else if (before.isPresent() && after.isEmpty()) {
      add(clause, place, SchemaText.of(before.get()), "", false);
    } else if (before.isPresent() && after.isPresent()) {
      String root = place.equals("body") ? "$" : place;
      SchemaChanges.of(root, before.get(), after.get())
          .forEach(it -> add(clause, it.place(), it.before(), it.after(), it.asksMore()));
    }
  }
}
