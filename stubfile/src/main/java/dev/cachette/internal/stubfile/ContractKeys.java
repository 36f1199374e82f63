// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.yaml.Node;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.UnaryOperator;

/**
 * The keys of contracts: what a stub says to them, and what a contract file has besides stubs. They
 * are validated and carried here, not interpreted.
 */
final class ContractKeys {

  /** The formats of strings that a need can name (JSON Schema 2020-12). */
  static final Set<String> FORMATS =
      Set.of("date", "date-time", "time", "duration", "uuid", "uri", "email", "ipv4", "ipv6");

  /** Needs without a value. */
  static final List<String> FLAGS =
      List.of("optional", "nullable", "anyOrder", "anyLength", "atLeastOne", "formats");

  static final Keys<Void> CONTRACT =
      Keys.of(
          Key.of("consumer", "The name of the application that calls.", Shape.TEXT),
          Key.of("provider", "The name of the service that answers.", Shape.TEXT),
          Key.of("origin", "The origin of the provider in the requests.", Shape.TEXT));

  static final Keys<Void> STATE =
      Keys.of(
          Key.of("state", "The state, in words.", Shape.TEXT),
          Key.of("parameters", "Its parameters, by name.", Shape.OBJECT));

  static final Keys<Void> NEED =
      Keys.of(
          Key.of("optional", "It may be missing.", Shape.FLAG),
          Key.of("nullable", "It may be null.", Shape.FLAG),
          Key.of(
              "anyOrder",
              "The elements of an array of different types come in any order.",
              Shape.FLAG),
          Key.of(
              "anyLength", "An array of different types can have any number of them.", Shape.FLAG),
          Key.of("atLeastOne", "An array has at least one element.", Shape.FLAG),
          Key.of(
              "formats",
              "Formats of the strings here and below are recognised: dates, instants, UUIDs, URIs.",
              Shape.FLAG),
          Key.of(
              "format",
              "The format of a string.",
              Shape.choice(FORMATS.stream().sorted().toList())),
          Key.of("pattern", "A regular expression that matches the whole value.", Shape.TEXT),
          Key.of("oneOf", "The values that it may have.", Shape.sequence(Shape.ANY)),
          Key.of("is", "The exact value.", Shape.ANY));

  static final Keys<Void> EXAMPLE =
      Keys.of(
          Key.of("method", "The method.", Shape.TEXT),
          Key.of("url", "The URL.", Shape.TEXT),
          Key.of("headers", "The headers.", Shape.OBJECT),
          Key.of("json", "The body, as JSON.", Shape.ANY),
          Key.of("text", "The body, as text.", Shape.TEXT),
          Key.of("base64", "The body, as Base64.", Shape.TEXT));

  static final Keys<Void> SHAPE =
      Keys.of(
          Key.of("mediaType", "The media type of the response.", Shape.TEXT),
          Key.of("headers", "Required headers, each with a JSON Schema.", Shape.OBJECT),
          Key.of("body", "The JSON Schema of the body.", Shape.ANY));

  /** The keys of a stub for contracts, in the order in which they are written. */
  static final Keys<StubPart> OF_STUB =
      Keys.of(
          key(
              "given",
              "The states that the provider must be in; for contracts.",
              Shape.list(Shape.either(Shape.TEXT, Shape.mapping(STATE, "state"))),
              ContractKeys::states),
          key(
              "needs",
              "Requirements for the response, by JSON path or name of a header; for contracts.",
              Shape.members(Shape.either(Shape.choice(FLAGS), Shape.mapping(NEED))),
              (node, stub) -> NeedsReader.check(node, stub.problems())),
          key(
              "example",
              "A request that was made, in a contract file.",
              Shape.mapping(EXAMPLE, "method", "url"),
              (node, stub) -> stub.within(node, "key of an example", EXAMPLE)),
          key(
              "shape",
              "The parts of the response that the consumer relies on, in a contract file.",
              Shape.mapping(SHAPE),
              NeedsReader::checkShape),
          key(
              "neededBy",
              "The tests of the consumer that rely on it, in a contract file.",
              Shape.sequence(Shape.TEXT),
              (node, stub) -> {}));

  private ContractKeys() {}

  private static Key<StubPart> key(
      String name, String help, Shape shape, BiConsumer<Node, StubFields> check) {
    return StubPart.key(
        name,
        help,
        shape,
        stub -> stub.fields().get(name).map(node -> carried(name, node, stub, check)),
        stub -> Optional.ofNullable(stub.extensions().get(name)));
  }

  private static UnaryOperator<StubSpec> carried(
      String name, Node node, StubFields stub, BiConsumer<Node, StubFields> check) {
    check.accept(node, stub);
    JsonNode value = node.json();
    return spec -> spec.with(name, value);
  }

  private static void states(Node node, StubFields stub) {
    for (Node each : Fields.elements(node)) {
      if (each.isText()) {
        continue;
      }
      Fields fields = stub.within(each, "key of a state", STATE);
      if (each.isMapping() && fields.text("state").isEmpty()) {
        stub.problems().add(each, "a state needs its words. Fix: { state: a berth is free }.");
      }
      fields.members("parameters");
    }
  }
}
