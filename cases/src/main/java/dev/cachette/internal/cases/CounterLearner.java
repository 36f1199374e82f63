// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.jsonpath.Located;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * Finds counters in the responses of several calls to the same endpoint: numbers, or strings that
 * end in one, that become larger from call to call. One call does not show that.
 */
public final class CounterLearner {

  private static final Pattern IDENTIFIER =
      Pattern.compile("(?i).*(?:id|number|no|nr|seq|sequence|count|counter|version|revision)\\W*");

  private static final int CONVINCING = 3;
  private static final long LARGEST_STEP = 1_000;

  /** By endpoint and place: the values, in order. */
  private final Map<String, List<Value>> values = new LinkedHashMap<>();

  private CounterLearner() {}

  private record Value(CaseExchange exchange, String place, String prefix, long number) {}

  /** Returns the places of counters in responses, by their exchanges. */
  public static Map<CaseExchange, VaryingPlaces> learn(List<CaseExchange> incoming) {
    CounterLearner learner = new CounterLearner();
    incoming.stream()
        .sorted(Comparator.comparing(it -> it.exchange().started()))
        .forEach(learner::add);
    Map<CaseExchange, Set<String>> places = new LinkedHashMap<>();
    for (List<Value> each : learner.values.values()) {
      if (isCounter(each)) {
        each.forEach(
            it -> places.computeIfAbsent(it.exchange, unused -> new TreeSet<>()).add(it.place));
      }
    }
    Map<CaseExchange, VaryingPlaces> found = new LinkedHashMap<>();
    places.forEach(
        (exchange, paths) -> {
          VaryingPlaces varying = VaryingPlaces.NONE;
          for (String path : paths) {
            varying = varying.with(path);
          }
          found.put(exchange, varying);
        });
    return found;
  }

  private static boolean isCounter(List<Value> each) {
    boolean byOne = true;
    for (int at = 1; at < each.size(); at++) {
      long step = each.get(at).number - each.get(at - 1).number;
      if (step <= 0 || step > LARGEST_STEP || !each.get(at).prefix.equals(each.get(0).prefix)) {
        return false;
      }
      byOne &= step == 1;
    }
    boolean isNamedSo = IDENTIFIER.matcher(each.get(0).place).matches();
    return each.size() >= 2 && isNamedSo || each.size() >= CONVINCING && byOne;
  }

  private void add(CaseExchange exchange) {
    Exchange call = exchange.exchange();
    Optional<JsonNode> json =
        call.response().flatMap(it -> Content.of(it.headers(), it.body()).json());
    if (json.isEmpty()) {
      return;
    }
    Request request = call.request();
    String endpoint =
        request.method()
            + " "
            + request.uri().path().replaceAll("/[^/]*\\d[^/]*", "/{}")
            + " "
            + call.response().map(Response::status).orElse(0);
    String given =
        request.uri().path() + "\n" + request.uri().rawQuery().orElse("") + "\n" + request.text();
    List<Located> leaves = new ArrayList<>();
    collect(Located.root(json.get()), leaves);
    for (Located leaf : leaves) {
      String text = leaf.node().asText();
      String digits = text.replaceAll(".*?(\\d{0,15})$", "$1");
      boolean isNumber = leaf.node().isIntegralNumber() || leaf.node().isTextual();
      if (isNumber && !digits.isEmpty() && !isGiven(text, given)) {
        values
            .computeIfAbsent(endpoint + " " + leaf.path(), it -> new ArrayList<>())
            .add(
                new Value(
                    exchange,
                    leaf.path(),
                    text.substring(0, text.length() - digits.length()),
                    Long.parseLong(digits)));
      }
    }
  }

  private static boolean isGiven(String value, String given) {
    return Pattern.compile("(?<![A-Za-z0-9])" + Pattern.quote(value) + "(?![A-Za-z0-9])")
        .matcher(given)
        .find();
  }

  /** Values in arrays are left out: their places mean something else in each response. */
  private static void collect(Located from, List<Located> into) {
    if (from.node().isObject()) {
      from.node().fieldNames().forEachRemaining(name -> collect(from.member(name), into));
    } else if (from.node().isValueNode()) {
      into.add(from);
    }
  }
}
