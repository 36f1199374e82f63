// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Matching.Part;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.internal.body.BodyChange;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.uri.VaryingPath;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The values that vary between recordings of the same calls: segments of paths, query parameters,
 * form fields, and places in JSON and XML. It is stored in the cassette, where you can see and edit
 * it.
 *
 * @param path paths with {@code {id}} for a segment
 * @param query query parameters
 * @param fields fields of URL-encoded forms
 * @param json JSONPaths
 * @param xpath XPaths
 */
public record Varying(
    Set<String> path, Set<String> query, Set<String> fields, Set<String> json, Set<String> xpath) {

  static final String MEMBER = "_varying";

  /** Nothing varies. */
  public static Varying none() {
    return new Varying(
        new TreeSet<>(), new TreeSet<>(), new TreeSet<>(), new TreeSet<>(), new TreeSet<>());
  }

  /** Reads what a cassette declares as varying. */
  public static Varying of(RecordedExchanges recordings) {
    JsonNode written = recordings.index().log().path(MEMBER);
    Varying varying = none();
    written.path("path").forEach(template -> varying.path.add(template.asText()));
    written.path("query").forEach(name -> varying.query.add(name.asText()));
    written.path("fields").forEach(name -> varying.fields.add(name.asText()));
    written.path("json").forEach(path -> varying.json.add(path.asText()));
    written.path("xpath").forEach(path -> varying.xpath.add(path.asText()));
    return varying;
  }

  /** Returns what varied before, and what differs between two recordings of the same calls. */
  public Varying learn(List<Exchange> before, List<Exchange> after) {
    Varying learnt = none();
    learnt.addAll(this);
    Matching byPath = Matching.byDefault().on(Part.METHOD, Part.ORIGIN, Part.PATH);
    learnt.learnPaths(CassetteInternals.pairs(before, after, byPath));
    Matching byTemplate =
        learnt.path.isEmpty() ? byPath : byPath.ignoringPath(learnt.path.toArray(String[]::new));
    for (CassetteInternals.Pair pair : CassetteInternals.pairs(before, after, byTemplate)) {
      if (pair.before().isPresent() && pair.after().isPresent()) {
        learnt.learn(pair.before().get(), pair.after().get());
      }
    }
    return learnt;
  }

  /** Learns from the calls of one recording that the other has at another path. */
  private void learnPaths(List<CassetteInternals.Pair> pairs) {
    List<Exchange> gone = pairs.stream().flatMap(it -> only(it.before(), it.after())).toList();
    List<Exchange> fresh = pairs.stream().flatMap(it -> only(it.after(), it.before())).toList();
    for (Exchange old : gone) {
      for (Exchange now : fresh) {
        if (old.request().method().equals(now.request().method())
            && old.request().uri().origin().equals(now.request().uri().origin())) {
          VaryingPath.between(old.request().uri().path(), now.request().uri().path())
              .ifPresent(path::add);
        }
      }
    }
  }

  private static Stream<Exchange> only(Optional<Exchange> one, Optional<Exchange> other) {
    return other.isPresent() ? Stream.empty() : one.stream();
  }

  /** Returns a matching that ignores it. */
  public Matching ignoredBy(Matching matching) {
    Matching ignoring = matching;
    if (!path.isEmpty()) {
      ignoring = ignoring.ignoringPath(path.toArray(String[]::new));
    }
    if (!query.isEmpty()) {
      ignoring = ignoring.ignoringQuery(query.toArray(String[]::new));
    }
    if (!fields.isEmpty()) {
      ignoring = ignoring.ignoringFields(fields.toArray(String[]::new));
    }
    if (!json.isEmpty()) {
      ignoring = ignoring.ignoringJson(json.toArray(String[]::new));
    }
    return xpath.isEmpty() ? ignoring : ignoring.ignoringXPath(xpath.toArray(String[]::new));
  }

  /** Returns true if nothing varies. */
  boolean isEmpty() {
    return path.isEmpty()
        && query.isEmpty()
        && fields.isEmpty()
        && json.isEmpty()
        && xpath.isEmpty();
  }

  /** Returns its form in the cassette. */
  ObjectNode written() {
    ObjectNode written = JsonNodeFactory.instance.objectNode();
    add(written, "path", path);
    add(written, "query", query);
    add(written, "fields", fields);
    add(written, "json", json);
    add(written, "xpath", xpath);
    return written;
  }

  private static void add(ObjectNode into, String member, Set<String> names) {
    if (!names.isEmpty()) {
      ArrayNode list = into.putArray(member);
      names.forEach(list::add);
    }
  }

  private void addAll(Varying other) {
    path.addAll(other.path);
    query.addAll(other.query);
    fields.addAll(other.fields);
    json.addAll(other.json);
    xpath.addAll(other.xpath);
  }

  private void learn(Exchange before, Exchange after) {
    query.addAll(differing(before.request().uri().query(), after.request().uri().query()));
    learn(
        before.request().headers(),
        before.request().body(),
        after.request().headers(),
        after.request().body());
    if (before.response().isPresent() && after.response().isPresent()) {
      learn(
          before.response().get().headers(),
          before.response().get().body(),
          after.response().get().headers(),
          after.response().get().body());
    }
  }

  private void learn(Headers oldHeaders, Body oldBody, Headers newHeaders, Body newBody) {
    if (oldBody.equals(newBody)) {
      return;
    }
    BodyFormats.changes(
            Content.of(oldHeaders, oldBody), Content.of(newHeaders, newBody), Ignored.NOTHING)
        .stream()
        .filter(change -> change.kind() == BodyChange.Kind.VALUE)
        .map(BodyChange::ignoring)
        .forEach(this::addAll);
  }

  private void addAll(Ignored places) {
    json.addAll(places.json());
    xpath.addAll(places.xpath());
    fields.addAll(places.fields());
  }

  private static Set<String> differing(Query before, Query after) {
    return before.names().stream()
        .filter(name -> after.names().contains(name))
        .filter(name -> !before.all(name).equals(after.all(name)))
        .collect(Collectors.toCollection(TreeSet::new));
  }
}
