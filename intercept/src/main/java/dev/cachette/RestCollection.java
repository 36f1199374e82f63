// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.internal.collection.CollectionRequests;
import dev.cachette.internal.collection.Items;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * An in-memory collection of JSON objects with the interface of a REST service:
 *
 * <ul>
 *   <li>{@code GET /bookings}: an array of all objects, or of those whose members have the values
 *       of the query parameters; {@code limit} and {@code offset} select a page, and the headers
 *       {@code total-count} and {@code link} describe the others;
 *   <li>{@code POST /bookings}: creates an object, 201 with its location; without an identifier, it
 *       gets the next number;
 *   <li>{@code GET /bookings/7}, {@code PUT}, {@code DELETE}: reads, replaces or creates, deletes
 *       it;
 *   <li>{@code PATCH /bookings/7}: changes it by a merge patch (RFC 7396).
 * </ul>
 *
 * Errors are problems (RFC 9457): 404 for a missing object, 400 for malformed input, 409 for an
 * identifier that exists. A more specific stub, or one declared later, can answer instead. Created
 * by {@link Cachette#collection}. Thread-safe.
 */
public final class RestCollection implements CallGroup {

  private final Cachette net;
  private final String url;
  private final Items items = new Items();
  private final List<StubRule> rules = new ArrayList<>();

  RestCollection(Cachette net, String url) {
    this.net = net;
    this.url = url;
    CollectionRequests requests = new CollectionRequests(items);
    String item = url + "/{" + CollectionRequests.ID + "}";
    stub("GET " + url, requests::list);
    stub("POST " + url, requests::create);
    stub("GET " + item, requests::read);
    stub("PUT " + item, requests::replace);
    stub("PATCH " + item, requests::patch);
    stub("DELETE " + item, requests::delete);
    rules.get(0).onStartAgain(items::startAgain);
    Supplier<JsonNode> written = () -> items.written(url);
    rules.forEach(rule -> rule.belongTo(written));
  }

  /**
   * Sets the objects at the start of each test.
   *
   * @param json an array of objects
   * @throws IllegalArgumentException if it is not an array of objects
   */
  public RestCollection seed(String json) {
    Refusals.given("seed(json)", json);
    items.seed(json);
    return this;
  }

  /**
   * Sets the objects at the start of each test, as Jackson writes them.
   *
   * @throws IllegalArgumentException if one is not written as an object
   */
  public RestCollection seed(Iterable<?> objects) {
    Refusals.given("seed(objects)", objects);
    items.seed(Json.write("seed(objects)", objects, Json.mapper()));
    return this;
  }

  /**
   * Sets the member that identifies an object; {@code id} by default.
   *
   * @throws IllegalArgumentException if the name is null or blank
   */
  public RestCollection identifiedBy(String member) {
    if (member == null || member.isBlank()) {
      throw Refusals.argument("identifiedBy(member) needs a name, not " + member + ".");
    }
    items.identifiedBy(member);
    return this;
  }

  /**
   * Gives objects entity tags and supports conditional requests (RFC 9110 section 13): {@code
   * If-None-Match} answers an unchanged object with 304, {@code If-Match} protects changes and
   * answers 412 if the object has changed, and {@code If-None-Match: *} creates only new ones.
   */
  public RestCollection withEtags() {
    items.withEtags();
    return this;
  }

  /** Returns copies of its current objects, in insertion order. */
  public List<JsonNode> items() {
    return items.all();
  }

  /** Returns the calls of the collection and of its objects. */
  @Override
  public Calls calls() {
    return net.calls().matching("* " + url).or("* " + url + "/{" + CollectionRequests.ID + "}");
  }

  private void stub(String line, Function<Received, Answer> function) {
    DraftStub draft = new DraftStub(RequestPattern.of(line), Caller.place());
    StubSpec spec = draft.answeredBy(List.of(Answers.computed(function)));
    rules.add(net.stubs().rule(spec, draft.place(), false));
  }

  /** Returns its stubs. */
  List<StubRule> rules() {
    return rules;
  }

  /** Returns its URL. */
  @Override
  public String toString() {
    return "the collection " + url;
  }
}
