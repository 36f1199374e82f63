// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.run;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.CallChoice;
import dev.cachette.internal.cases.CaseExchange;
import dev.cachette.internal.cases.OwnOrigin;
import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.RecordedExchanges;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Answers outgoing calls from the files of cases, in the current scope of a Cachette. */
public final class CaseAnswers {

  private CaseAnswers() {}

  /** Answers calls by a choice among the exchanges of a file; returns the cassette. */
  static LoadedCassette put(
      Cachette net,
      String name,
      RecordedExchanges exchanges,
      CallChoice by,
      Redaction secrets,
      Set<String> destinations) {
    CassetteSettings how =
        CassetteSettings.defaults().mode(RecordingMode.REPLAY).redaction(any -> secrets);
    LoadedCassette cassette = new LoadedCassette(name, how, RecordingMode.REPLAY, exchanges);
    cassette.chooseBy(by, destinations);
    CachetteInternals.put(net, cassette);
    return cassette;
  }

  /** Answers the calls that the application makes by itself; none of them need be made. */
  public static void putBackground(
      Cachette net, CaseFile background, Redaction secrets, Set<String> destinations) {
    OwnOrigin unknown = new OwnOrigin("", "");
    CallChoice choice = new CallChoice(Clock.systemUTC(), unknown, request -> true);
    List<CaseExchange> all = background.content().exchanges();
    choice.begin(all, IntStream.range(0, all.size()).boxed().collect(Collectors.toSet()));
    put(net, background.content().name(), background.exchanges(), choice, secrets, destinations);
  }

  /**
   * Returns the origins of all outgoing calls.
   *
   * @param application the origin of the application, which is not one of them
   */
  public static Set<String> destinations(List<CaseFile> files, String application) {
    return files.stream()
        .flatMap(file -> file.content().steps().stream())
        .flatMap(step -> step.outgoing().stream())
        .map(it -> it.exchange().request().uri())
        .map(Uri::origin)
        .filter(it -> !it.equals(application))
        .collect(Collectors.toSet());
  }
}
