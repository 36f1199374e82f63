// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

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
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads conditions on requests: the members of a mapping for parts of the request. */
final class ConditionReader {

  private static final String NAMESPACES = "namespaces";

  /** The keys for parts of a request. */
  static final Set<String> KEYS =
      Set.of(
          "path",
          "query",
          "headers",
          "cookies",
          "basic",
          "bearer",
          "json",
          "form",
          "xpath",
          NAMESPACES,
          "parts",
          "body",
          "graphql",
          "soap",
          "anyOf",
          "allOf",
          "not");

  private static final Set<String> GRAPHQL = Set.of("operation", "kind", "variables", "fields");
  private static final Set<String> SOAP =
      Set.of("version", "action", "element", "qualifiedElement");
  private static final Set<String> PART = Set.of("fileName", "contentType", "content");

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
    Fields fields = Fields.of(node, "condition", KEYS, problems);
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
      if (KEYS.contains(member.name())) {
        all.addAll(conditions(member, fields));
      }
    }
    return all;
  }

  private List<Condition> conditions(Node.Member member, Fields fields) {
    Node node = member.value();
    return switch (member.name()) {
      case "path" -> each(node, Conditions::path);
      case "query" -> each(node, Conditions::query);
      case "headers" -> each(node, Conditions::header);
      case "cookies" -> each(node, Conditions::cookie);
      case "json" -> each(node, Bodies::jsonAt);
      case "form" -> each(node, Bodies::formField);
      case "xpath" -> {
        Map<String, String> prefixes = namespaces(fields);
        yield each(node, (path, value) -> Bodies.xpath(path, value, prefixes));
      }
      case "bearer" -> values.read(node).map(Conditions::bearer).stream().toList();
      case "basic" -> basic(node).stream().toList();
      case "parts" -> parts(node);
      case "body" -> bodies.read(node);
      case "graphql" -> made(node, () -> graphql(node));
      case "soap" -> made(node, () -> soap(node));
      case "anyOf" -> several(node, Conditions::anyOf);
      case "allOf" -> several(node, Conditions::allOf);
      case "not" -> read(node).map(Condition::negated).stream().toList();
      default -> List.of();
    };
  }

  private List<Condition> made(Node node, Supplier<Condition> making) {
    return problems.attempt(node, making).stream().toList();
  }

  private List<Condition> each(Node node, BiFunction<String, ValueCondition, Condition> making) {
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

  private List<Condition> several(Node node, Function<Condition[], Condition> how) {
    Condition[] all =
        Fields.elements(node).stream()
            .flatMap(each -> read(each).stream())
            .toArray(Condition[]::new);
    return made(node, () -> how.apply(all));
  }

  private Optional<Condition> basic(Node node) {
    Fields fields = Fields.of(node, "key of basic", Set.of("user", "password"), problems);
    return problems.attempt(
        node,
        () ->
            Conditions.basic(
                fields.text("user").orElseThrow(() -> missing("user")),
                fields.text("password").orElseThrow(() -> missing("password"))));
  }

  private static IllegalArgumentException missing(String key) {
    return new IllegalArgumentException("\"" + key + "\" is missing.");
  }

  private Map<String, String> namespaces(Fields fields) {
    Map<String, String> prefixes = new LinkedHashMap<>();
    fields
        .members(NAMESPACES)
        .forEach(member -> prefixes.put(member.name(), member.value().text()));
    return prefixes;
  }

  private List<Condition> parts(Node node) {
    List<Condition> all = new ArrayList<>();
    for (Node.Member member : Fields.any(node, problems).members()) {
      problems.attempt(member.key(), () -> part(member.name(), member.value())).ifPresent(all::add);
    }
    return all;
  }

  private PartCondition part(String name, Node node) {
    Fields fields = Fields.of(node, "key of a part", PART, problems);
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

  private GraphQlCondition graphql(Node node) {
    Fields fields = Fields.of(node, "key of graphql", GRAPHQL, problems);
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

  private SoapCondition soap(Node node) {
    Fields fields = Fields.of(node, "key of soap", SOAP, problems);
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
