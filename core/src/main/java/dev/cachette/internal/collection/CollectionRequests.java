// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.collection;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.status;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.internal.text.EntityTagList;
import dev.cachette.internal.uri.Percent;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** Answers the requests to a REST collection. */
public final class CollectionRequests {

  /** The variable of the request line for the identifier. */
  public static final String ID = "id";

  private static final String LIMIT = "limit";
  private static final String OFFSET = "offset";

  private final Items items;

  /** Creates the answers for these items. */
  public CollectionRequests(Items items) {
    this.items = items;
  }

  /**
   * Lists the objects whose members have the values of the query parameters; {@code limit} and
   * {@code offset} select a page, and a link header (RFC 8288) points to the next one.
   */
  public ResponseAnswer list(Received received) {
    Query query = received.query();
    List<JsonNode> fitting = items.all().stream().filter(item -> fits(item, query)).toList();
    Optional<Long> offset = number(query, OFFSET);
    Optional<Long> limit = number(query, LIMIT);
    if (query.first(OFFSET).isPresent() != offset.isPresent()
        || query.first(LIMIT).isPresent() != limit.isPresent()) {
      return problem(400, "limit and offset must be numbers that are not negative");
    }
    int from = (int) Math.min(offset.orElse(0L), fitting.size());
    int to = (int) Math.min(from + limit.orElse((long) fitting.size()), fitting.size());
    ResponseAnswer page =
        json(fitting.subList(from, to)).header("total-count", Integer.toString(fitting.size()));
    return to < fitting.size() && to > from
        ? page.header("link", "<" + next(received, to) + ">; rel=\"next\"")
        : page;
  }

  /** Creates an object; the location header is its URL. */
  public ResponseAnswer create(Received received) {
    return withObject(
        received,
        object ->
            items
                .add(object)
                .map(
                    id ->
                        tagged(object)
                            .status(201)
                            .header(
                                "location",
                                received.request().uri().path().replaceFirst("/$", "")
                                    + "/"
                                    + Percent.encodeSegment(id)))
                .orElseGet(
                    () ->
                        problem(
                            409,
                            "An object with this identifier exists",
                            Map.of(items.idMember(), object.get(items.idMember())))));
  }

  /** Returns one object. */
  public ResponseAnswer read(Received received) {
    return items.find(id(received)).map(this::tagged).orElseGet(() -> missing(received));
  }

  /** Replaces or creates an object. */
  public ResponseAnswer replace(Received received) {
    return withObject(
        received,
        object -> {
          Optional<ResponseAnswer> conflict =
              precondition(received).or(() -> conflict(object, received));
          if (conflict.isPresent()) {
            return conflict.get();
          }
          if (!object.hasNonNull(items.idMember())) {
            object.put(items.idMember(), id(received));
          }
          boolean replaced = items.put(id(received), object);
          return replaced
              ? tagged(object)
              : tagged(object).status(201).header("location", received.request().uri().path());
        });
  }

  /** Changes an object by a merge patch (RFC 7396). */
  public ResponseAnswer patch(Received received) {
    Optional<ObjectNode> old = items.find(id(received));
    if (old.isEmpty()) {
      return missing(received);
    }
    return withObject(
        received,
        patch -> {
          ObjectNode merged = (ObjectNode) MergePatch.apply(old.get(), patch);
          Optional<ResponseAnswer> conflict =
              precondition(received).or(() -> conflict(merged, received));
          if (conflict.isPresent()) {
            return conflict.get();
          }
          items.put(id(received), merged);
          return tagged(merged);
        });
  }

  /** Deletes an object. */
  public ResponseAnswer delete(Received received) {
    Optional<ResponseAnswer> failed = precondition(received);
    if (failed.isPresent()) {
      return failed.get();
    }
    return items.remove(id(received)) ? status(204) : missing(received);
  }

  private ResponseAnswer tagged(ObjectNode object) {
    ResponseAnswer answer = json(object);
    return items.hasEtags() ? answer.etag(EntityTags.of(object)) : answer;
  }

  /** Returns 412 if a precondition of a change fails (RFC 9110 section 13). */
  private Optional<ResponseAnswer> precondition(Received received) {
    if (!items.hasEtags()) {
      return Optional.empty();
    }
    Optional<String> current = items.find(id(received)).map(EntityTags::of);
    Headers asked = received.request().headers();
    if (asked.has("if-match")
        && current
            .filter(tag -> EntityTagList.contains(asked.all("if-match"), tag, false))
            .isEmpty()) {
      return Optional.of(failed("If-Match", current));
    }
    return current
        .filter(tag -> EntityTagList.contains(asked.all("if-none-match"), tag, true))
        .map(tag -> failed("If-None-Match", current));
  }

  private static ResponseAnswer failed(String header, Optional<String> current) {
    String detail =
        current.map(tag -> "The entity tag is " + tag + ".").orElse("It does not exist.");
    ResponseAnswer problem = problem(412, header + " does not hold", Map.of("detail", detail));
    return current.map(problem::etag).orElse(problem);
  }

  private ResponseAnswer withObject(
      Received received, Function<ObjectNode, ResponseAnswer> handling) {
    Optional<JsonNode> body = MatchInternals.parsed(received).content().json();
    return body.isPresent() && body.get() instanceof ObjectNode object
        ? handling.apply(object.deepCopy())
        : problem(
            400,
            "The body is not a JSON object",
            Map.of("detail", "It begins with: " + start(received)));
  }

  /** Returns true if the body has the identifier of the path, or none. */
  private Optional<ResponseAnswer> conflict(ObjectNode object, Received received) {
    JsonNode id = object.path(items.idMember());
    boolean same = id.isMissingNode() || id.isNull() || id.asText().equals(id(received));
    return same
        ? Optional.empty()
        : Optional.of(
            problem(
                400,
                "The identifier must not change",
                Map.of("detail", "The path has " + id(received) + ", the body has " + id + ".")));
  }

  private ResponseAnswer missing(Received received) {
    return problem(404, "No object has this identifier", Map.of(items.idMember(), id(received)));
  }

  private static boolean fits(JsonNode item, Query query) {
    return query.names().stream()
        .filter(name -> !name.equals(LIMIT) && !name.equals(OFFSET))
        .allMatch(name -> query.all(name).contains(item.path(name).asText()));
  }

  private static Optional<Long> number(Query query, String name) {
    return query.first(name).filter(text -> text.matches("[0-9]{1,9}")).map(Long::parseLong);
  }

  /** Returns the same request with another offset. */
  private static String next(Received received, int offset) {
    StringBuilder target = new StringBuilder(received.request().uri().path()).append('?');
    for (String name : received.query().names()) {
      for (String value : name.equals(OFFSET) ? List.<String>of() : received.query().all(name)) {
        target
            .append(Percent.encodeForm(name))
            .append('=')
            .append(Percent.encodeForm(value))
            .append('&');
      }
    }
    return target.append(OFFSET).append('=').append(offset).toString();
  }

  private static String id(Received received) {
    return received.variable(ID);
  }

  private static String start(Received received) {
    String text = received.text();
    return text.substring(0, Math.min(text.length(), 40));
  }
}
