// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

/** A run as JSON, made of what happened in its JVMs; {@code run.json} has this form. */
final class Run {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final List<JvmEvents> jvms;
  private final StubTotals stubs = new StubTotals();
  private final DescriptionTotals descriptions = new DescriptionTotals();
  private final FaultTotals faults = new FaultTotals();
  private final CassetteTotals cassettes = new CassetteTotals();
  private final SweepTotals sweeps = new SweepTotals();
  private final List<ObjectNode> tests = new ArrayList<>();
  private Instant lastEnd = Instant.MIN;

  private Run(List<JvmEvents> jvms) {
    this.jvms = jvms.stream().sorted(Comparator.comparing(JvmEvents::startedAt)).toList();
  }

  /** Merges JVMs; a test that a later JVM has run again counts once. */
  static ObjectNode of(Collection<JvmEvents> jvms) {
    return new Run(jvms.stream().filter(it -> !it.jvm().isMissingNode()).toList()).merged();
  }

  private ObjectNode merged() {
    ArrayNode shownJvms = NODES.arrayNode();
    for (int at = 0; at < jvms.size(); at++) {
      JvmEvents jvm = jvms.get(at);
      shownJvms.add(jvm(jvm));
      jvm.descriptions().forEach(descriptions::add);
      jvm.swept().forEach(swept -> sweeps.add(jvm.folder(), swept));
      Set<String> again = jvm.namesInLater(jvms);
      for (ScopeEvents scope : jvm.scopes()) {
        if (!again.contains(scope.name())) {
          add(at, jvm, scope);
        }
      }
    }
    tests.sort(Comparator.comparing(test -> test.path("startedAt").asText()));
    ObjectNode run = NODES.objectNode();
    run.put("format", Events.FORMAT);
    run.set("totals", totals());
    run.set("jvms", shownJvms);
    run.set("tests", NODES.arrayNode().addAll(tests));
    run.set("stubs", stubs.json());
    run.set("descriptions", descriptions.json());
    run.set("faults", faults.json());
    run.set("cassettes", cassettes.json());
    run.set("sweeps", sweeps.json());
    return run;
  }

  private void add(int jvm, JvmEvents events, ScopeEvents scope) {
    scope
        .ended()
        .ifPresent(
            end -> {
              stubs.add(events, end);
              cassettes.add(events.folder(), end);
              faults.addAttempts(end);
            });
    scope
        .calls()
        .forEach(
            call -> {
              descriptions.count(call.event());
              faults.add(call.event());
            });
    if (scope.isToBeShown()) {
      TestOfRun test = TestOfRun.of(scope, events.endedAt());
      tests.add(test.json(jvm));
      lastEnd = test.end().isAfter(lastEnd) ? test.end() : lastEnd;
    }
  }

  private static ObjectNode jvm(JvmEvents events) {
    ObjectNode json = NODES.objectNode();
    json.put("process", events.jvm().path("process").asLong());
    json.put("java", events.jvm().path("java").asText());
    json.put("folder", events.folder());
    json.put("startedAt", events.startedAt().toString());
    events.endedAt().ifPresent(at -> json.put("endedAt", at.toString()));
    if (events.lost() > 0) {
      json.put("lost", events.lost());
    }
    return json;
  }

  private ObjectNode totals() {
    ObjectNode totals = NODES.objectNode();
    totals.put("tests", tests.size());
    totals.put("failed", having("failed"));
    totals.put("unfinished", having("unfinished"));
    totals.put("calls", sum("calls"));
    totals.put("unexpected", sum("unexpected"));
    double waiting = tests.stream().mapToDouble(it -> it.path("waitingMillis").asDouble()).sum();
    totals.put("waitingMillis", Numbers.rounded(waiting));
    totals.put("recordedServicesMillis", Numbers.rounded(cassettes.realMillis()));
    jvms.stream()
        .map(JvmEvents::startedAt)
        .min(Comparator.naturalOrder())
        .ifPresent(
            first -> {
              totals.put("startedAt", first.toString());
              Instant last = last(first);
              totals.put("endedAt", last.toString());
              totals.put("durationMillis", Duration.between(first, last).toMillis());
            });
    return totals;
  }

  private long having(String outcome) {
    return tests.stream().filter(it -> it.path("outcome").asText().equals(outcome)).count();
  }

  private long sum(String list) {
    return tests.stream().mapToLong(it -> it.path(list).size()).sum();
  }

  private Instant last(Instant first) {
    Instant last = first;
    for (JvmEvents jvm : jvms) {
      Instant end = jvm.endedAt().orElse(first);
      last = end.isAfter(last) ? end : last;
    }
    return last.isAfter(lastEnd) ? last : lastEnd;
  }
}
