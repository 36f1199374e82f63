// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.Situation;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The active cassettes: the first that has an exchange answers, else the first that records. */
final class CassetteSource implements AnswerSource {

  private final Scopes scopes;
  private final HostServices outside;

  CassetteSource(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    List<LoadedCassette> cassettes = scopes.cassettesFor(call.request());
    for (LoadedCassette cassette : cassettes) {
      Optional<LoadedCassette.Replayed> replayed = cassette.replay(call.request());
      if (replayed.isPresent()) {
        return Optional.of(new ReplayedAnswer(call, replayed.get()));
      }
    }
    return recorder(cassettes)
        .filter(it -> !outside.realService().isOurself(call.request()))
        .map(it -> new RecordedAnswer(call, it, scopes, outside));
  }

  private static Optional<LoadedCassette> recorder(List<LoadedCassette> cassettes) {
    return cassettes.stream().filter(LoadedCassette::records).findFirst();
  }

  @Override
  public Situation situation(ArrivedCall call) {
    List<Explanation.Stub> near = new ArrayList<>();
    List<String> names = new ArrayList<>();
    for (LoadedCassette cassette : scopes.cassettesFor(call.request())) {
      names.add(cassette.toString());
      near.addAll(cassette.near(call.request()));
    }
    return Situation.recorded(names, near);
  }

  @Override
  public Optional<String> refusal(ArrivedCall call) {
    return recorder(scopes.cassettesFor(call.request()))
        .filter(it -> outside.realService().isOurself(call.request()))
        .map(it -> RealServiceReply.comesBack(call.request()));
  }
}
