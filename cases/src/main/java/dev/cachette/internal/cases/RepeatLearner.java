// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyChange;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.uri.VaryingPath;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Learns what varies in a call from making it twice. */
public final class RepeatLearner {

  private RepeatLearner() {}

  /** Returns a step with what is different in the same one, made again. */
  public static Case.Step learn(Case.Step first, Case.Step again) {
    Optional<CaseExchange> incoming =
        first
            .incoming()
            .map(
                it ->
                    it.varying(
                        VaryingPlaces.NONE,
                        again.incoming().map(other -> response(it, other)).orElse(it.response())));
    Map<Integer, Integer> pairs = CallPairs.ofExchanges(first.outgoing(), again.outgoing()).pairs();
    List<CaseExchange> outgoing = new ArrayList<>(first.outgoing());
    pairs.forEach(
        (at, other) ->
            outgoing.set(
                at,
                first
                    .outgoing()
                    .get(at)
                    .varying(
                        request(
                            first.outgoing().get(at).exchange().request(),
                            again.outgoing().get(other).exchange().request()),
                        VaryingPlaces.NONE)));
    return new Case.Step(incoming, outgoing);
  }

  private static VaryingPlaces response(CaseExchange first, CaseExchange again) {
    Optional<Response> one = first.exchange().response();
    Optional<Response> other = again.exchange().response();
    return one.isEmpty() || other.isEmpty()
        ? VaryingPlaces.NONE
        : places(one.get().headers(), one.get().body(), other.get().headers(), other.get().body());
  }

  private static VaryingPlaces request(Request one, Request other) {
    VaryingPlaces found = places(one.headers(), one.body(), other.headers(), other.body());
    Optional<String> path = VaryingPath.between(one.uri().path(), other.uri().path());
    if (path.isPresent()) {
      found = found.withPath(path.get());
    }
    for (String name : one.uri().query().names()) {
      boolean differs =
          other.uri().query().names().contains(name)
              && !one.uri().query().all(name).equals(other.uri().query().all(name));
      found = differs ? found.withQuery(name) : found;
    }
    return found;
  }

  private static VaryingPlaces places(
      Headers headers, Body body, Headers otherHeaders, Body otherBody) {
    VaryingPlaces found = VaryingPlaces.NONE;
    for (String name : ComparedHeaders.names(headers, otherHeaders)) {
      boolean both = headers.has(name) && otherHeaders.has(name);
      found =
          both && !headers.all(name).equals(otherHeaders.all(name))
              ? found.withHeader(name)
              : found;
    }
    if (body.equals(otherBody)) {
      return found;
    }
    for (BodyChange change :
        BodyFormats.changes(
            Content.of(headers, body), Content.of(otherHeaders, otherBody), Ignored.NOTHING)) {
      if (!change.ignoring().equals(Ignored.NOTHING)) {
        found = found.with(change.ignoring());
      } else if (change.kind() == BodyChange.Kind.VALUE) {
        found = found.withWholeBody();
      }
    }
    return found;
  }
}
