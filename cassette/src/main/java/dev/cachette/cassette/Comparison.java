// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.cassette.Drift.Change;
import dev.cachette.cassette.Drift.ChangedExchange;
import dev.cachette.cassette.Drift.Kind;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyChange;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.secret.Masking;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Compares two cassettes, exchange by exchange. */
final class Comparison {

  /** Headers that affect callers; others are ignored. */
  private static final List<String> HEADERS =
      List.of("content-type", "location", "www-authenticate", "allow", "content-disposition");

  private final Matching matching;

  private Comparison(Matching matching) {
    this.matching = matching;
  }

  static List<ChangedExchange> of(
      CassetteContent before, CassetteContent after, Matching matching) {
    Comparison comparison = new Comparison(matching);
    List<ChangedExchange> changed = new ArrayList<>();
    for (CassetteInternals.Pair pair : Pairs.of(before.exchanges(), after.exchanges(), matching)) {
      List<Change> changes = comparison.changes(pair);
      if (!changes.isEmpty()) {
        Exchange shown = pair.before().or(pair::after).orElseThrow();
        RequestMask mask = mask(pair);
        changed.add(
            new ChangedExchange(
                mask.text(shown.request().toString()),
                changes.stream().map(it -> masked(it, mask)).toList()));
      }
    }
    return changed;
  }

  /** Files of other tools may have secrets. */
  private static RequestMask mask(CassetteInternals.Pair pair) {
    List<Exchange> both = Stream.concat(pair.before().stream(), pair.after().stream()).toList();
    List<Response> responses = both.stream().flatMap(it -> it.response().stream()).toList();
    return RequestMask.of(both.get(0).request(), responses);
  }

  private static Change masked(Change change, RequestMask mask) {
    return new Change(
        change.kind(),
        mask.text(change.place()),
        Masking.text(mask.text(change.before())),
        Masking.text(mask.text(change.after())));
  }

  private List<Change> changes(CassetteInternals.Pair pair) {
    if (pair.before().isEmpty()) {
      return List.of(new Change(Kind.EXCHANGE_NEW, "", "", pair.after().orElseThrow().outcome()));
    }
    if (pair.after().isEmpty()) {
      return List.of(new Change(Kind.EXCHANGE_GONE, "", pair.before().get().outcome(), ""));
    }
    Exchange before = pair.before().get();
    Exchange after = pair.after().get();
    List<Change> changes = new ArrayList<>();
    if (!before.outcome().equals(after.outcome())) {
      changes.add(new Change(Kind.STATUS, "", before.outcome(), after.outcome()));
    }
    if (before.response().isPresent() && after.response().isPresent()) {
      addHeaders(changes, before.response().get().headers(), after.response().get().headers());
      addBody(changes, before.response().get(), after.response().get());
    }
    return changes;
  }

  private void addHeaders(List<Change> changes, Headers before, Headers after) {
    for (String name : HEADERS) {
      Optional<String> old = before.first(name);
      Optional<String> now = after.first(name);
      if (!old.equals(now) && !matching.ignoredHeaders().contains(name)) {
        changes.add(new Change(Kind.HEADER, name, old.orElse("none"), now.orElse("none")));
      }
    }
  }

  private void addBody(List<Change> changes, Response before, Response after) {
    if (before.body().equals(after.body())
        && isSame(before, after, "content-type")
        && isSame(before, after, "content-encoding")) {
      return;
    }
    BodyFormats.changes(
            Content.of(before.headers(), before.body()),
            Content.of(after.headers(), after.body()),
            matching.ignoredInBody())
        .forEach(
            change ->
                changes.add(
                    new Change(
                        kind(change.kind()), change.place(), change.before(), change.after())));
  }

  private static boolean isSame(Response before, Response after, String header) {
    return before.headers().all(header).equals(after.headers().all(header));
  }

  private static Kind kind(BodyChange.Kind kind) {
    return switch (kind) {
      case GONE -> Kind.GONE;
      case NEW -> Kind.NEW;
      case TYPE -> Kind.TYPE;
      case VALUE, SIZE -> Kind.VALUE;
    };
  }
}
