// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.CaseExchange;
import dev.cachette.internal.cases.CaseMerge;
import dev.cachette.internal.cases.CounterLearner;
import dev.cachette.internal.cases.RepeatLearner;
import dev.cachette.internal.cases.ShapeLearner;
import dev.cachette.internal.cases.VaryingPlaces;
import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.cases.file.CaseName;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.cassette.TokenClaims;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Makes files of what is captured. A file that was there before is merged with: what has not
 * changed stays as it is. Used by one thread at a time.
 */
final class CaseWriter {

  private final CaseFolder folder;
  private final Redactor redactor;

  /** The files as they were before, by the names of cases. */
  private final Map<String, CaseFile> before = new LinkedHashMap<>();

  /** By name: the file with the case. */
  private final Map<String, CapturedCase> written = new HashMap<>();

  CaseWriter(Path folder, Redaction redaction) {
    this.folder = new CaseFolder(folder);
    this.redactor = new Redactor(redaction);
    this.folder.read().forEach(file -> before.put(file.content().name(), file));
  }

  /** Returns a case made of drafts, redacted, with what varies in it. */
  Case content(CapturedCase captured) {
    List<Case.Step> steps = new ArrayList<>();
    for (Draft draft : captured.drafts()) {
      Case.Step step = step(draft);
      Optional<Case.Step> again = draft.repeated().map(this::step);
      steps.add(again.map(it -> RepeatLearner.learn(step, it)).orElse(step));
    }
    Case learnt = ShapeLearner.learn(new Case("", steps));
    List<Case.Step> marked = learnt.steps().stream().map(it -> marked(it, captured)).toList();
    return new Case(name(captured, learnt), marked);
  }

  private Case.Step step(Draft draft) {
    boolean hasIncoming = draft.incoming().isPresent();
    if (!hasIncoming) {
      draft.dropRepeated();
    }
    List<Exchange> all = redactor.redactAll(draft.exchanges());
    return new Case.Step(
        hasIncoming ? Optional.of(CaseExchange.of(all.get(0))) : Optional.empty(),
        all.subList(hasIncoming ? 1 : 0, all.size()).stream()
            .map(TokenClaims::received)
            .map(CaseExchange::of)
            .toList());
  }

  private static Case.Step marked(Case.Step step, CapturedCase captured) {
    VaryingPlaces marks = captured.marks();
    return new Case.Step(
        step.incoming()
            .map(it -> new CaseExchange(it.exchange(), it.request(), it.response().and(marks))),
        step.outgoing());
  }

  private String name(CapturedCase captured, Case content) {
    if (captured.name().isPresent()) {
      return captured.name().get();
    }
    String name =
        captured
            .givenName()
            .map(given -> freeName(given, written.keySet()))
            .or(() -> nameBefore(content))
            .orElseGet(() -> nameOfRequest(content));
    captured.call(name);
    return name;
  }

  /** Returns the name of a case that was captured before, for the same request. */
  private Optional<String> nameBefore(Case content) {
    Exchange incoming = incoming(content);
    return before.values().stream()
        .filter(file -> !written.containsKey(file.content().name()))
        .filter(file -> isFor(file, incoming))
        .map(file -> file.content().name())
        .findFirst();
  }

  private static Exchange incoming(Case content) {
    return content.steps().get(0).incoming().orElseThrow().exchange();
  }

  private String nameOfRequest(Case content) {
    Set<String> taken = new HashSet<>(written.keySet());
    taken.addAll(before.keySet());
    return freeName(CaseName.of(incoming(content).request()), taken);
  }

  private static boolean isFor(CaseFile file, Exchange incoming) {
    return file.content().steps().get(0).incoming().stream()
        .anyMatch(it -> CaseMerge.isSameRequest(it, incoming));
  }

  /** Returns a name with the first number that is free. */
  private static String freeName(String wanted, Set<String> taken) {
    String name = wanted;
    for (int number = 2; taken.contains(name); number++) {
      name = wanted + "-" + number;
    }
    return name;
  }

  /** Writes a case, if it has changed since the last time. */
  void write(CapturedCase captured) {
    Case content = content(captured);
    if (captured.content().filter(content::equals).isPresent()) {
      return;
    }
    written.put(content.name(), captured);
    CaseFile.Change change =
        CaseFile.replace(
            folder.file(content.name()), Optional.ofNullable(before.get(content.name())), content);
    captured.keep(content, change);
  }

  /** Marks counters, which several cases show together, and writes these cases. */
  void markCounters(List<CapturedCase> all) {
    Map<CaseExchange, VaryingPlaces> counters =
        CounterLearner.learn(all.stream().flatMap(CaseWriter::incoming).toList());
    for (CapturedCase each : all) {
      VaryingPlaces found =
          incoming(each)
              .map(it -> counters.getOrDefault(it, VaryingPlaces.NONE))
              .reduce(VaryingPlaces.NONE, VaryingPlaces::and);
      if (!found.isEmpty()) {
        each.mark(found);
        write(each);
      }
    }
  }

  private static Stream<CaseExchange> incoming(CapturedCase captured) {
    return captured.content().stream()
        .flatMap(it -> it.steps().stream())
        .flatMap(it -> it.incoming().stream());
  }

  /** Gives a case another name. */
  void rename(CapturedCase captured, String wanted) {
    remove(captured);
    captured.call(freeName(wanted, written.keySet()));
  }

  /** Removes what was written of a case; a file that was there before is restored. */
  void remove(CapturedCase captured) {
    captured
        .name()
        .ifPresent(
            name -> {
              written.remove(name);
              CaseFile.restore(folder.file(name), Optional.ofNullable(before.get(name)));
            });
  }
}
