// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.cassette.HarWriter;
import dev.cachette.internal.cassette.RecordedExchanges;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The file of a case: HAR 1.2. Each entry says by {@code _call} whether it is an incoming call or
 * an outgoing one; outgoing calls follow the incoming one that caused them.
 */
public final class CaseHar {

  private static final String CALL = "_call";
  private static final String INCOMING = "incoming";
  private static final String OUTGOING = "outgoing";

  private CaseHar() {}

  /**
   * A case as it is in its file.
   *
   * @param content the case
   * @param entries its exchanges as JSON, in the same order
   * @param lines the first line of each
   */
  public record Written(Case content, List<ObjectNode> entries, List<Integer> lines) {

    /** Returns the first line of an exchange in the file. */
    public int line(CaseExchange exchange) {
      List<CaseExchange> all = content.exchanges();
      for (int at = 0; at < all.size(); at++) {
        if (all.get(at) == exchange) {
          return lines.get(at);
        }
      }
      return 1;
    }
  }

  /**
   * Reads a case.
   *
   * @throws CassetteException if it is not one; the message names file, line and fix
   */
  public static Written read(String name, RecordedExchanges file) {
    List<Case.Step> steps = new ArrayList<>();
    List<ObjectNode> entries = new ArrayList<>();
    List<Integer> lines = new ArrayList<>();
    Optional<CaseExchange> incoming = Optional.empty();
    List<CaseExchange> outgoing = new ArrayList<>();
    for (int at = 0; at < file.size(); at++) {
      RecordedExchanges.Read entry = file.read(at);
      CaseExchange exchange = exchange(entry, file, at);
      String call = entry.tree().path(CALL).asText();
      if (call.equals(INCOMING)) {
        if (exchange.exchange().response().isEmpty()) {
          throw malformed(file, at, "an incoming call needs a response.");
        }
        if (incoming.isEmpty() && !outgoing.isEmpty()) {
          throw malformed(file, at, "an incoming call follows outgoing calls without one.");
        }
        addStep(steps, incoming, outgoing);
        incoming = Optional.of(exchange);
        outgoing.clear();
      } else if (call.equals(OUTGOING)) {
        outgoing.add(exchange);
      } else {
        throw malformed(file, at, unknownCall(entry.tree().path(CALL)));
      }
      entries.add((ObjectNode) entry.tree());
      lines.add(file.line(at));
    }
    addStep(steps, incoming, outgoing);
    if (steps.isEmpty()) {
      throw new CassetteException(file.index().name() + " is not a case: it has no entries.");
    }
    return new Written(new Case(name, steps), entries, lines);
  }

  private static String unknownCall(JsonNode call) {
    String found = call.isMissingNode() ? "is missing" : "is " + call;
    return String.format(
        "%s %s, but must be \"%s\" or \"%s\".%nFix: correct it. A HAR file that a browser has"
            + " exported becomes cases with cachette capture --from.",
        CALL, found, INCOMING, OUTGOING);
  }

  private static void addStep(
      List<Case.Step> steps, Optional<CaseExchange> incoming, List<CaseExchange> outgoing) {
    if (incoming.isPresent() || !outgoing.isEmpty()) {
      steps.add(new Case.Step(incoming, outgoing));
    }
  }

  private static CaseExchange exchange(
      RecordedExchanges.Read entry, RecordedExchanges file, int at) {
    try {
      return new CaseExchange(
          entry.exchange(),
          VaryingPlaces.read(entry.tree().path("request")),
          VaryingPlaces.read(entry.tree().path("response")));
    } catch (VaryingPlaces.Malformed malformed) {
      throw malformed(file, at, malformed.getMessage());
    }
  }

  private static CassetteException malformed(RecordedExchanges file, int at, String problem) {
    return new CassetteException(
        String.format(
            "%s:%d is not an entry of a case: %s", file.index().name(), file.line(at), problem));
  }

  /** Returns the entries of a case as JSON. */
  public static List<ObjectNode> entries(Case content) {
    List<ObjectNode> entries = new ArrayList<>();
    for (Case.Step step : content.steps()) {
      step.incoming().ifPresent(it -> entries.add(entry(it, INCOMING)));
      step.outgoing().forEach(it -> entries.add(entry(it, OUTGOING)));
    }
    return entries;
  }

  private static ObjectNode entry(CaseExchange exchange, String call) {
    ObjectNode entry = JsonNodeFactory.instance.objectNode();
    entry.put(CALL, call);
    ObjectNode written = HarWriter.tree(exchange.exchange());
    exchange.request().addTo((ObjectNode) written.get("request"));
    exchange.response().addTo((ObjectNode) written.get("response"));
    entry.setAll(written);
    return entry;
  }

  /**
   * Writes a file.
   *
   * @param entries the entries, as JSON
   * @param old the file as it was, with members that are kept
   * @param version the version of Cachette
   */
  public static void write(
      OutputStream out, List<ObjectNode> entries, RecordedExchanges old, String version) {
    ObjectNode log = JsonNodeFactory.instance.objectNode();
    ObjectNode before = old.index().log();
    log.put("version", HarWriter.VERSION);
    JsonNode creator = before.path("creator");
    log.set(
        "creator",
        creator.isObject()
            ? creator
            : JsonNodeFactory.instance
                .objectNode()
                .put("name", "Cachette")
                .put("version", version));
    before.properties().stream()
        .filter(member -> !log.has(member.getKey()))
        .forEach(member -> log.set(member.getKey(), member.getValue()));
    HarWriter.write(out, log, old.index().root(), entries.stream().map(HarWriter::entry)::iterator);
  }
}
