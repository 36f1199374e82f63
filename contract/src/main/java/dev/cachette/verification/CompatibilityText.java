// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.verification.Compatibility.Cell;
import dev.cachette.verification.Compatibility.Outcome;
import dev.cachette.verification.Compatibility.Pair;
import dev.cachette.verification.Compatibility.Version;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Renders compatibility and decisions on releases, as text and as JSON. */
public final class CompatibilityText {

  private static final DateTimeFormatter MINUTES =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT).withZone(ZoneOffset.UTC);

  private CompatibilityText() {}

  /** Returns a table for each consumer and provider, and why clauses are not met. */
  public static String of(Compatibility compatibility) {
    Refusals.given("of(compatibility)", compatibility);
    if (compatibility.pairs().isEmpty()) {
      return "The store has no contracts. Fix: cachette publish target/contracts --to STORE"
          + " --consumer-version VERSION";
    }
    StringBuilder text = new StringBuilder();
    for (Pair pair : compatibility.pairs()) {
      text.append(text.isEmpty() ? "" : "\n").append(table(pair));
      for (Cell cell : pair.cells()) {
        for (String why : cell.unmet()) {
          text.append(
              String.format(
                  "  %s@%s does not meet %s@%s: %s%n",
                  pair.provider(),
                  cell.providerVersion(),
                  pair.consumer(),
                  cell.consumerVersion(),
                  why));
        }
      }
    }
    return text.toString();
  }

  private static String table(Pair pair) {
    List<List<String>> rows = new ArrayList<>();
    List<String> head = new ArrayList<>(List.of(pair.consumer()));
    pair.providerVersions().forEach(it -> head.add(pair.provider() + "@" + it));
    rows.add(head);
    for (Version row : pair.consumerVersions()) {
      List<String> cells = new ArrayList<>(List.of("@" + row));
      pair.providerVersions().forEach(column -> cells.add(words(pair.cell(row, column))));
      rows.add(cells);
    }
    if (pair.providerVersions().isEmpty()) {
      head.add(pair.provider());
      rows.subList(1, rows.size()).forEach(it -> it.add("not verified"));
    }
    return laidOut(rows);
  }

  private static String laidOut(List<List<String>> rows) {
    StringBuilder text = new StringBuilder();
    for (List<String> row : rows) {
      StringBuilder line = new StringBuilder();
      for (int at = 0; at < row.size(); at++) {
        int column = at;
        int width = rows.stream().mapToInt(it -> it.get(column).length()).max().orElse(0);
        line.append(row.get(at)).append(" ".repeat(width - row.get(at).length() + 3));
      }
      text.append(line.toString().stripTrailing()).append('\n');
    }
    return text.toString();
  }

  /** Returns what is known of a cell: {@code met 2031-04-02 08:15}. */
  static String words(Cell cell) {
    return word(cell.outcome()) + cell.at().map(it -> " " + time(it)).orElse("");
  }

  /** Returns an instant to the minute, in UTC. */
  static String time(Instant at) {
    return MINUTES.format(at);
  }

  static String word(Outcome outcome) {
    return switch (outcome) {
      case MET -> "met";
      case UNMET -> "NOT MET";
      case UNKNOWN -> "not verified";
    };
  }

  /** Returns yes or no, with the reasons. */
  public static String of(ReleaseDecision decision) {
    Refusals.given("of(decision)", decision);
    String subject = decision.name() + "@" + decision.version();
    StringBuilder text = new StringBuilder();
    text.append(
        String.format(
            decision.isAllowed() ? "yes: %s can go to %s.%n" : "no: %s cannot go to %s.%n",
            subject,
            decision.environment()));
    if (decision.findings().isEmpty()) {
      text.append(
          String.format("  nothing in %s has a contract with it%n", decision.environment()));
    }
    for (ReleaseDecision.Finding finding : decision.findings()) {
      text.append(String.format("  %s: %s%n", finding.other(), word(finding.outcome())));
      finding.reasons().forEach(it -> text.append(String.format("    %s%n", it)));
    }
    return text.toString();
  }

  /** Returns the tables as JSON. */
  public static JsonNode json(Compatibility compatibility) {
    Refusals.given("json(compatibility)", compatibility);
    ArrayNode pairs = JsonNodeFactory.instance.arrayNode();
    for (Pair pair : compatibility.pairs()) {
      ObjectNode one = pairs.addObject();
      one.put("consumer", pair.consumer()).put("provider", pair.provider());
      versions(one.putArray("consumerVersions"), pair.consumerVersions());
      versions(one.putArray("providerVersions"), pair.providerVersions());
      ArrayNode cells = one.putArray("cells");
      for (Cell cell : pair.cells()) {
        ObjectNode json = cells.addObject();
        json.put("consumerVersion", cell.consumerVersion());
        json.put("providerVersion", cell.providerVersion());
        json.put("outcome", cell.outcome().name().toLowerCase(Locale.ROOT));
        cell.at().ifPresent(it -> json.put("at", it.toString()));
        cell.unmet().forEach(json.withArray("unmet")::add);
      }
    }
    return pairs;
  }

  private static void versions(ArrayNode into, List<Version> versions) {
    for (Version each : versions) {
      ObjectNode json = into.addObject().put("version", each.number());
      each.labels().forEach(json.withArray("labels")::add);
    }
  }

  /** Returns a decision as JSON. */
  public static JsonNode json(ReleaseDecision decision) {
    Refusals.given("json(decision)", decision);
    ObjectNode json = JsonNodeFactory.instance.objectNode();
    json.put("release", decision.name() + "@" + decision.version());
    json.put("to", decision.environment());
    json.put("allowed", decision.isAllowed());
    ArrayNode findings = json.putArray("findings");
    for (ReleaseDecision.Finding each : decision.findings()) {
      ObjectNode one = findings.addObject().put("with", each.other());
      one.put("outcome", each.outcome().name().toLowerCase(Locale.ROOT));
      each.reasons().forEach(one.withArray("reasons")::add);
    }
    return json;
  }
}
