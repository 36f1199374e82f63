package dev.cachette.internal.collection;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.status;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Query;
import dev.cachette.internal.uri.Percent;
import dev.cachette.match.Received;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** What a collection answers to the requests of a REST service. */
public final class Requests {

  /** The variable of the request line that holds the identifier. */
  public static final String ID = "id";

  private static final String LIMIT = "limit";
  private static final String OFFSET = "offset";

  private final Items items;

  /** The requests to these items. */
  public Requests(Items items) {
    this.items = items;
  }

  /**
   * The objects whose members have the values of the query parameters; {@code limit} and {@code
   * offset} choose a page, and a link header (RFC 8288) names the next one.
   */
  public ResponseAnswer list(Received received) {
    Query query = received.query();
    List<JsonNode> fitting = items.all().stream().filter(item -> fits(item, query)).toList();
    Optional<Long> offset = number(query, OFFSET);
    Optional<Long> limit = number(query, LIMIT);
    if (query.first(OFFSET).isPresent() != offset.isPresent()
        || query.first(LIMIT).isPresent() != limit.isPresent()) {
      return problem(400, "limit and offset are numbers, not negative");
    }
    int from = (int) Math.min(offset.orElse(0L), fitting.size());
    int to = (int) Math.min(from + limit.orElse((long) fitting.size()), fitting.size());
    ResponseAnswer page =
        json(fitting.subList(from, to)).header("total-count", Integer.toString(fitting.size()));
    return to < fitting.size() && to > from
        ? page.header("link", "<" + next(received, to) + ">; rel=\"next\"")
        : page;
  }

  /** A new object; the location is where it can be read. */
  public ResponseAnswer create(Received received) {
    return withObject(
        received,
        object ->
            items
                .add(object)
                .map(
                    id ->
                        json(object)
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
                            "There is another with this identifier",
                            Map.of(items.idMember(), object.get(items.idMember())))));
  }

  /** One object. */
  public ResponseAnswer read(Received received) {
    return items.find(id(received)).map(object -> json(object)).orElseGet(() -> missing(received));
  }

  /** One object in the place of another one, or a new one. */
  public ResponseAnswer replace(Received received) {
    return withObject(
        received,
        object -> {
          Optional<ResponseAnswer> conflict = conflict(object, received);
          if (conflict.isPresent()) {
            return conflict.get();
          }
          if (!object.hasNonNull(items.idMember())) {
            object.put(items.idMember(), id(received));
          }
          return json(object).status(items.put(id(received), object) ? 200 : 201);
        });
  }

  /** One object changed by a merge patch (RFC 7396). */
  public ResponseAnswer patch(Received received) {
    Optional<ObjectNode> old = items.find(id(received));
    if (old.isEmpty()) {
      return missing(received);
    }
    return withObject(
        received,
        patch -> {
          ObjectNode merged = (ObjectNode) MergePatch.apply(old.get(), patch);
          Optional<ResponseAnswer> conflict = conflict(merged, received);
          if (conflict.isPresent()) {
            return conflict.get();
          }
          items.put(id(received), merged);
          return json(merged);
        });
  }

  /** One object less. */
  public ResponseAnswer delete(Received received) {
    return items.remove(id(received)) ? status(204) : missing(received);
  }

  private ResponseAnswer withObject(
      Received received, Function<ObjectNode, ResponseAnswer> handling) {
    Optional<JsonNode> body = received.content().json();
    return body.isPresent() && body.get() instanceof ObjectNode object
        ? handling.apply(object.deepCopy())
        : problem(
            400, "The body is no JSON object", Map.of("detail", "It begins: " + start(received)));
  }

  /** The identifier in the body is the one in the path, or none. */
  private Optional<ResponseAnswer> conflict(ObjectNode object, Received received) {
    JsonNode id = object.path(items.idMember());
    boolean same = id.isMissingNode() || id.isNull() || id.asText().equals(id(received));
    return same
        ? Optional.empty()
        : Optional.of(
            problem(
                400,
                "The identifier cannot be changed",
                Map.of("detail", "The path has " + id(received) + ", the body has " + id + ".")));
  }

  private ResponseAnswer missing(Received received) {
    return problem(
        404, "There is none with this identifier", Map.of(items.idMember(), id(received)));
  }

  private static boolean fits(JsonNode item, Query query) {
    return query.names().stream()
        .filter(name -> !name.equals(LIMIT) && !name.equals(OFFSET))
        .allMatch(name -> query.all(name).contains(item.path(name).asText()));
  }

  private static Optional<Long> number(Query query, String name) {
    return query.first(name).filter(text -> text.matches("[0-9]{1,9}")).map(Long::parseLong);
  }

  /** The same request, from another place on. */
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
