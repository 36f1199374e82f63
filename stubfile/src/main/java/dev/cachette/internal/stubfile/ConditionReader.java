// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Bodies;
import dev.cachette.match.BodyCondition;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.GraphQlCondition;
import dev.cachette.match.PartCondition;
import dev.cachette.match.SoapCondition;
import dev.cachette.match.ValueCondition;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads conditions on requests: the members of a mapping for parts of the request. */
final class ConditionReader {

  /** Makes a condition on a part of a request that has a name. */
  @FunctionalInterface
  interface OfNamedValue extends BiFunction<String, ValueCondition, Condition> {}

  private final Problems problems;
  private final ValueReader values;
  private final BodyReader bodies;

  ConditionReader(Problems problems) {
    this.problems = problems;
    this.values = new ValueReader(problems);
    this.bodies = new BodyReader(problems, values);
  }

  /** Reads the conditions of a mapping that has no other keys. */
  Optional<Condition> read(Node node) {
    Fields fields = Fields.of(node, "condition", ConditionKeys.ALL, problems);
    List<Condition> all = in(fields);
    if (all.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        all.size() == 1 ? all.get(0) : Conditions.allOf(all.toArray(Condition[]::new)));
  }

  /** Reads the conditions among the members of a mapping, in order. */
  List<Condition> in(Fields fields) {
    List<Condition> all = new ArrayList<>();
    for (Node.Member member : fields.members()) {
      ConditionKeys.Reading key = ConditionKeys.ALL.reading(member.name());
      if (key != null) {
        all.addAll(key.of(this, member.value(), fields));
      }
    }
    return all;
  }

  private List<Condition> made(Node node, Supplier<Condition> making) {
    return problems.attempt(node, making).stream().toList();
  }

  /** Reads a condition on one value. */
  List<Condition> one(Node node, Function<ValueCondition, Condition> making) {
    return values.read(node).map(making).stream().toList();
  }

  /** Reads conditions on the whole body. */
  List<Condition> body(Node node) {
    return bodies.read(node);
  }

  /** Reads a condition for each member, on the part that it names. */
  List<Condition> each(Node node, OfNamedValue making) {
    List<Condition> all = new ArrayList<>();
    for (Node.Member member : Fields.any(node, problems).members()) {
      values
          .read(member.value())
          .flatMap(
              value -> problems.attempt(member.key(), () -> making.apply(member.name(), value)))
          .ifPresent(all::add);
    }
    return all;
  }

  /** Reads conditions, and combines them. */
  List<Condition> several(Node node, Function<Condition[], Condition> how) {
    Condition[] all =
        Fields.elements(node).stream()
            .flatMap(each -> read(each).stream())
            .toArray(Condition[]::new);
    return made(node, () -> how.apply(all));
  }

  /** Reads credentials. */
  List<Condition> basic(Node node) {
    Fields fields = Fields.of(node, "key of basic", ConditionKeys.BASIC, problems);
    return made(
        node,
        () ->
            Conditions.basic(
                fields.text("user").orElseThrow(() -> missing("user")),
                fields.text("password").orElseThrow(() -> missing("password"))));
  }

  private static IllegalArgumentException missing(String key) {
    return new IllegalArgumentException("\"" + key + "\" is missing.");
  }

  /** Reads what the prefixes of XPath stand for. */
  static Map<String, String> namespaces(Fields fields) {
    Map<String, String> prefixes = new LinkedHashMap<>();
    fields
        .members(ConditionKeys.NAMESPACES)
        .forEach(member -> prefixes.put(member.name(), member.value().text()));
    return prefixes;
  }

  /** Reads a condition for each part of a multipart body. */
  List<Condition> parts(Node node) {
    List<Condition> all = new ArrayList<>();
    for (Node.Member member : Fields.any(node, problems).members()) {
      problems.attempt(member.key(), () -> part(member.name(), member.value())).ifPresent(all::add);
    }
    return all;
  }

  private PartCondition part(String name, Node node) {
    Fields fields = Fields.of(node, "key of a part", ConditionKeys.PART, problems);
    PartCondition part = Bodies.part(name);
    Optional<ValueCondition> fileName = fields.get("fileName").flatMap(values::read);
    if (fileName.isPresent()) {
      part = part.fileName(fileName.get());
    }
    Optional<ValueCondition> type = fields.get("contentType").flatMap(values::read);
    if (type.isPresent()) {
      part = part.contentType(type.get());
    }
    for (Node content : fields.list("content")) {
      for (BodyCondition each : bodies.content(content, this)) {
        part = part.content(each);
      }
    }
    return part;
  }

  /** Reads a condition on a GraphQL request. */
  List<Condition> graphql(Node node) {
    return made(node, () -> graphqlRequest(node));
  }

  private GraphQlCondition graphqlRequest(Node node) {
    Fields fields = Fields.of(node, "key of graphql", ConditionKeys.GRAPHQL, problems);
    GraphQlCondition condition = Bodies.graphql();
    Optional<ValueCondition> operation = fields.get("operation").flatMap(values::read);
    if (operation.isPresent()) {
      condition = condition.operation(operation.get());
    }
    Optional<String> kind = fields.text("kind");
    if (kind.isPresent()) {
      condition =
          switch (kind.get()) {
            case "query" -> condition.query();
            case "mutation" -> condition.mutation();
            case "subscription" -> condition.subscription();
            default ->
                throw new IllegalArgumentException(
                    "\""
                        + kind.get()
                        + "\" is not an operation kind. Allowed: query, mutation, subscription.");
          };
    }
    for (String field : fields.texts("fields")) {
      condition = condition.field(field);
    }
    for (Node.Member member : fields.members("variables")) {
      Optional<ValueCondition> value = values.read(member.value());
      if (value.isPresent()) {
        condition = condition.variable(member.name(), value.get());
      }
    }
    return condition;
  }

  /** Reads a condition on a SOAP request. */
  List<Condition> soap(Node node) {
    return made(node, () -> soapRequest(node));
  }

  private SoapCondition soapRequest(Node node) {
    Fields fields = Fields.of(node, "key of soap", ConditionKeys.SOAP, problems);
    SoapCondition condition = Bodies.soap();
    Optional<String> version = fields.text("version");
    if (version.isPresent()) {
      condition = condition.version(version.get());
    }
    Optional<ValueCondition> action = fields.get("action").flatMap(values::read);
    if (action.isPresent()) {
      condition = condition.action(action.get());
    }
    Optional<ValueCondition> element = fields.get("element").flatMap(values::read);
    if (element.isPresent()) {
      condition = condition.element(element.get());
    }
    Optional<String> qualified = fields.text("qualifiedElement");
    if (qualified.isPresent()) {
      Matcher name = Pattern.compile("\\{([^}]*)}(.+)").matcher(qualified.get());
      if (!name.matches()) {
        throw new IllegalArgumentException(
            "\"" + qualified.get() + "\" is not a qualified name. Fix: '{urn:harbour}Declare'.");
      }
      condition = condition.element(name.group(1), name.group(2));
    }
    return condition;
  }
}
