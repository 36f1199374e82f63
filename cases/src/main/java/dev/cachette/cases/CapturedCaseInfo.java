// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.CaseExchange;
import dev.cachette.internal.cases.capture.CapturedCase;
import dev.cachette.internal.cases.file.CaseFolder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A case that is captured.
 *
 * @param number its number, by which it can be named or dropped; 0 for outgoing calls that no
 *     incoming call has caused
 * @param name its name
 * @param file its file
 * @param incoming its incoming calls with their outcome: {@code GET /v1/arrivals}
 * @param outcome the outcome of the last one: {@code 200}
 * @param outgoing its outgoing calls: {@code GET https://tides.example/v1/tides -> 200}
 * @param varying the places that vary, of incoming responses and outgoing requests
 * @param change how its file has changed
 */
public record CapturedCaseInfo(
    long number,
    String name,
    Path file,
    List<String> incoming,
    String outcome,
    List<String> outgoing,
    List<String> varying,
    Change change) {

  /** How a file has changed. */
  public enum Change {
    /** It is new. */
    NEW,
    /** It has other content than before. */
    CHANGED,
    /** It is as it was before. */
    UNCHANGED
  }

  /** Copies the lists. */
  public CapturedCaseInfo {
    incoming = List.copyOf(incoming);
    outgoing = List.copyOf(outgoing);
    varying = List.copyOf(varying);
  }

  static CapturedCaseInfo of(CapturedCase from, CaseFolder folder) {
    List<String> incoming = new ArrayList<>();
    List<String> outgoing = new ArrayList<>();
    List<String> varying = new ArrayList<>();
    String outcome = "";
    Optional<Case> content = from.content();
    for (Case.Step step : content.map(Case::steps).orElse(List.of())) {
      if (step.incoming().isPresent()) {
        CaseExchange call = step.incoming().get();
        incoming.add(call.exchange().request().method() + " " + target(call));
        outcome = call.exchange().outcome();
        varying.addAll(call.response().shown());
      }
      for (CaseExchange call : step.outgoing()) {
        outgoing.add(call.exchange().toString());
        call.request().shown().forEach(it -> varying.add("outgoing " + it));
      }
    }
    String name = from.name().orElse("");
    return new CapturedCaseInfo(
        from.number(),
        name,
        folder.file(name),
        incoming,
        outcome,
        outgoing,
        varying.stream().distinct().toList(),
        Change.valueOf(from.change().name()));
  }

  private static String target(CaseExchange call) {
    String path = call.exchange().request().uri().path();
    return call.exchange().request().uri().rawQuery().map(it -> path + "?" + it).orElse(path);
  }
}
