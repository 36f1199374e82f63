// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.CachetteInternals;
import dev.cachette.Stub;
import dev.cachette.internal.contract.States;
import dev.cachette.internal.contract.StubNeeds;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.verification.GivenState;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * The clause of a stub: the states of the provider, and what the consumer needs of the response.
 *
 * <p>Without a word, it needs the status, the media type, the headers that the stub sets, and the
 * body by type: each member of the example, with values of the same JSON type. The methods loosen
 * or tighten that at a place: a JSON path, such as {@code $.vessel.name} or {@code
 * $.slots[*].from}, or the name of a header. The same can be said in stub files, under {@code
 * needs}.
 *
 * <p>For one thread.
 */
public final class StubClause {

  private final Stub stub;

  StubClause(Stub stub) {
    this.stub = stub;
  }

  /**
   * Adds a state that the provider must be in: {@code given("a berth is free")}.
   *
   * @throws IllegalArgumentException if the state is blank
   */
  public StubClause given(String state) {
    return given(state, Map.of());
  }

  /**
   * Adds a state with parameters: {@code given("a berth is free", Map.of("berth", "B-12"))}.
   *
   * @throws IllegalArgumentException if the state is blank, or a parameter cannot be written as
   *     JSON
   */
  public StubClause given(String state, Map<String, ?> parameters) {
    if (state == null || state.isBlank()) {
      throw Refusals.argument("given(state) needs words for the state: \"a berth is free\".");
    }
    Refusals.given("given(state, parameters)", parameters);
    Map<String, JsonNode> values = new TreeMap<>();
    parameters.forEach(
        (name, value) ->
            values.put(
                name, Json.tree(Json.write("given(state, parameters)", value, Json.mapper()))));
    CachetteInternals.change(
        stub,
        spec -> {
          List<GivenState> states = new ArrayList<>(States.read(spec.extensions().get(States.KEY)));
          states.add(new GivenState(state, values));
          return spec.with(States.KEY, States.write(states).orElseThrow());
        });
    return this;
  }

  /** The members or headers may be missing. */
  public StubClause optional(String... places) {
    return flag("optional", places);
  }

  /** The values may be null. */
  public StubClause nullable(String... places) {
    return flag("nullable", places);
  }

  /** The elements of the arrays come in any order: of those with elements of different types. */
  public StubClause anyOrder(String... places) {
    return flag("anyOrder", places);
  }

  /** The arrays have any number of elements: those with elements of different types. */
  public StubClause anyLength(String... places) {
    return flag("anyLength", places);
  }

  /** The arrays, objects or strings are not empty. */
  public StubClause atLeastOne(String... places) {
    return flag("atLeastOne", places);
  }

  /**
   * Recognises the formats of the strings at and below the places: dates, instants, UUIDs and URIs;
   * {@code "$"} is the whole body.
   */
  public StubClause formats(String... places) {
    return flag("formats", places);
  }

  /**
   * The strings have a format of JSON Schema: {@code date}, {@code date-time}, {@code time}, {@code
   * duration}, {@code uuid}, {@code uri}, {@code email}, {@code ipv4} or {@code ipv6}.
   *
   * @throws IllegalArgumentException if the format is unknown
   */
  public StubClause format(String place, String format) {
    return need(place, "format", StubNodes.text(Refusals.given("format", format)));
  }

  /**
   * A regular expression matches the whole value.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public StubClause pattern(String place, String regex) {
    return need(place, "pattern", StubNodes.text(Refusals.given("regex", regex)));
  }

  /** The value is one of these. */
  public StubClause oneOf(String place, Object... values) {
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    for (Object value : Refusals.given("oneOf(place, values)", values)) {
      all.add(json("oneOf(place, values)", value));
    }
    return need(place, "oneOf", all);
  }

  /** The value is exactly this one. */
  public StubClause exactly(String place, Object value) {
    return need(place, "is", json("exactly(place, value)", value));
  }

  private static JsonNode json(String what, Object value) {
    return Json.tree(Json.write(what, value, Json.mapper()));
  }

  /**
   * Checks now that the consumer can read each response that this clause allows: calls the reader
   * with the bodies of the stub, from which each optional member is taken out and in which each
   * nullable value is null; one at a time, and all together. Call it last.
   *
   * @param reader the consumer's own: {@code body -> mapper.readValue(body, Booking.class)}
   * @throws org.opentest4j.AssertionFailedError if the reader throws an exception; it names the
   *     member
   */
  public StubClause readBy(BodyReader reader) {
    Refusals.given("readBy(reader)", reader);
    ConsumerReading.check(stub, CachetteInternals.spec(stub), reader);
    return this;
  }

  /** Reads a response body as the consumer does. */
  @FunctionalInterface
  public interface BodyReader {

    /**
     * Reads a body.
     *
     * @throws Exception if it cannot be read
     */
    Object read(String body) throws Exception;
  }

  private StubClause flag(String flag, String... places) {
    Refusals.given(flag + "(places)", places);
    for (String place : places) {
      need(place, flag, StubNodes.flag(true));
    }
    return this;
  }

  private StubClause need(String place, String key, JsonNode value) {
    Refusals.given("The place of " + key, place);
    ObjectNode need = StubNodes.member(key, value);
    StubNeeds.require(place, need);
    CachetteInternals.change(stub, spec -> StubNeeds.with(spec, place, need));
    return this;
  }

  /** Returns the stub. */
  @Override
  public String toString() {
    return "The clause of " + stub;
  }
}
