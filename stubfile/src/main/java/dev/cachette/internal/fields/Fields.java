// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.yaml.Node;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** The members of a mapping with a fixed set of keys. */
public final class Fields {

  private final Node node;
  private final Problems problems;

  private Fields(Node node, Problems problems) {
    this.node = node;
    this.problems = problems;
  }

  /**
   * Returns the members of a node; none, and a problem, if it is not a mapping. Unknown keys are
   * problems.
   *
   * @param what describes the keys in messages: {@code key of a stub}
   */
  public static Fields of(Node node, String what, Keys<?> allowed, Problems problems) {
    Fields fields = any(node, problems);
    for (Node.Member member : fields.members()) {
      if (!allowed.contains(member.name())) {
        problems.unknown(member.key(), member.name(), what, allowed.names());
      }
    }
    return fields;
  }

  /** Returns the members of a node with any keys. */
  public static Fields any(Node node, Problems problems) {
    if (!node.isMapping()) {
      problems.add(node, "expected a mapping, found " + node.kind() + ".");
    }
    return new Fields(node, problems);
  }

  public Node node() {
    return node;
  }

  /** Returns the members, in order. */
  public List<Node.Member> members() {
    List<Node.Member> members = node.members();
    return members == null ? List.of() : members;
  }

  public boolean has(String name) {
    return get(name).isPresent();
  }

  /** Returns true if any of them is present. */
  public boolean hasAny(Set<String> names) {
    for (Node.Member member : members()) {
      if (names.contains(member.name())) {
        return true;
      }
    }
    return false;
  }

  /** Returns the value of a key. */
  public Optional<Node> get(String name) {
    // There are few, and each look-up is for other names: a map would not pay.
    for (Node.Member member : members()) {
      if (member.name().equals(name)) {
        return Optional.of(member.value());
      }
    }
    return Optional.empty();
  }

  /** Returns a scalar, as text. */
  public Optional<String> text(String name) {
    return scalar(name, "a string", value -> !value.isNull()).map(JsonNode::asText);
  }

  /** Returns a boolean. */
  public Optional<Boolean> flag(String name) {
    return scalar(name, "true or false", JsonNode::isBoolean).map(JsonNode::booleanValue);
  }

  /** Returns true if it is present and true. */
  public boolean isSet(String name) {
    return flag(name).orElse(false);
  }

  /** Returns a whole number. */
  public Optional<Integer> number(String name) {
    return scalar(name, "a whole number", JsonNode::canConvertToInt)
        .filter(value -> value.isIntegralNumber())
        .map(JsonNode::intValue);
  }

  /** Returns a whole number from 1. */
  public Optional<Integer> positive(String name) {
    return scalar(
            name,
            "a whole number from 1",
            value -> value.isIntegralNumber() && value.canConvertToInt() && value.intValue() > 0)
        .map(JsonNode::intValue);
  }

  /** Returns a number. */
  public Optional<Double> fraction(String name) {
    return scalar(name, "a number", JsonNode::isNumber).map(JsonNode::doubleValue);
  }

  /** Returns a duration, as {@link Durations} parses it. */
  public Optional<Duration> duration(String name) {
    return get(name).flatMap(at -> problems.attempt(at, () -> Durations.parse(at.text())));
  }

  /** Returns the elements of a sequence; or the one value without a sequence. */
  public List<Node> list(String name) {
    return get(name).map(Fields::elements).orElse(List.of());
  }

  /** Returns the elements of a sequence; or the one value. */
  public static List<Node> elements(Node node) {
    List<Node> elements = node.elements();
    return elements == null ? List.of(node) : elements;
  }

  /** Returns the elements of a sequence, or the one value, as strings. */
  public List<String> texts(String name) {
    List<String> texts = new ArrayList<>();
    for (Node each : list(name)) {
      if (each.scalar() == null || each.scalar().isNull()) {
        problems.add(each, "expected a string, found " + each.kind() + ".");
      } else {
        texts.add(each.text());
      }
    }
    return texts;
  }

  /** Returns the members of the mapping under a key; none if there is none. */
  public List<Node.Member> members(String name) {
    return get(name).map(at -> any(at, problems).members()).orElse(List.of());
  }

  private Optional<JsonNode> scalar(String name, String what, Predicate<JsonNode> right) {
    Optional<Node> there = get(name);
    if (there.isPresent() && (there.get().scalar() == null || !right.test(there.get().scalar()))) {
      problems.add(there.get(), "expected " + what + ", found " + there.get().kind() + ".");
      return Optional.empty();
    }
    return there.map(Node::scalar);
  }
}
