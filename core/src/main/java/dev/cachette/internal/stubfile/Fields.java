package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.yaml.Node;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** The members of a mapping, of which only some may be there. */
final class Fields {

  private final Node node;
  private final Problems problems;

  private Fields(Node node, Problems problems) {
    this.node = node;
    this.problems = problems;
  }

  /**
   * The members of a node; none, and a problem, where it is no mapping. Members that are not
   * allowed are problems.
   *
   * @param what whose members they are, for the message: {@code key of a stub}
   */
  static Fields of(Node node, String what, Collection<String> allowed, Problems problems) {
    Fields fields = any(node, problems);
    for (Node.Member member : fields.members()) {
      if (!allowed.contains(member.name())) {
        problems.unknown(member.key(), member.name(), what, allowed);
      }
    }
    return fields;
  }

  /** The members of a node, whatever their names. */
  static Fields any(Node node, Problems problems) {
    if (!node.isMapping()) {
      problems.add(node, "here stands " + node.kind() + ", where a mapping is meant.");
    }
    return new Fields(node, problems);
  }

  Node node() {
    return node;
  }

  List<Node.Member> members() {
    List<Node.Member> members = node.members();
    return members == null ? List.of() : members;
  }

  boolean has(String name) {
    return get(name).isPresent();
  }

  /** Whether one of them is there, or several. */
  boolean hasAny(Set<String> names) {
    for (Node.Member member : members()) {
      if (names.contains(member.name())) {
        return true;
      }
    }
    return false;
  }

  Optional<Node> get(String name) {
    // There are a few, and the next look is at other ones: a map would not pay.
    for (Node.Member member : members()) {
      if (member.name().equals(name)) {
        return Optional.of(member.value());
      }
    }
    return Optional.empty();
  }

  /** A text, or a number or truth value as it is written. */
  Optional<String> text(String name) {
    return scalar(name, "a text", value -> !value.isNull()).map(JsonNode::asText);
  }

  Optional<Boolean> flag(String name) {
    return scalar(name, "true or false", JsonNode::isBoolean).map(JsonNode::booleanValue);
  }

  /** Whether it is there and true. */
  boolean isSet(String name) {
    return flag(name).orElse(false);
  }

  Optional<Integer> number(String name) {
    return scalar(name, "a whole number", JsonNode::canConvertToInt)
        .filter(value -> value.isIntegralNumber())
        .map(JsonNode::intValue);
  }

  /** A whole number from 1. */
  Optional<Integer> positive(String name) {
    return scalar(
            name,
            "a whole number from 1",
            value -> value.isIntegralNumber() && value.canConvertToInt() && value.intValue() > 0)
        .map(JsonNode::intValue);
  }

  Optional<Double> fraction(String name) {
    return scalar(name, "a number", JsonNode::isNumber).map(JsonNode::doubleValue);
  }

  Optional<Duration> duration(String name) {
    return get(name).flatMap(at -> problems.attempt(at, () -> Durations.parse(at.text())));
  }

  /** The elements of a sequence; or the one value that stands there without one. */
  List<Node> list(String name) {
    return get(name).map(Fields::elements).orElse(List.of());
  }

  static List<Node> elements(Node node) {
    List<Node> elements = node.elements();
    return elements == null ? List.of(node) : elements;
  }

  List<String> texts(String name) {
    List<String> texts = new ArrayList<>();
    for (Node each : list(name)) {
      if (each.scalar() == null || each.scalar().isNull()) {
        problems.add(each, "here stands " + each.kind() + ", where a text is meant.");
      } else {
        texts.add(each.text());
      }
    }
    return texts;
  }

  /** The members of the mapping that stands under a name; none if there is none. */
  List<Node.Member> members(String name) {
    return get(name).map(at -> any(at, problems).members()).orElse(List.of());
  }

  private Optional<JsonNode> scalar(String name, String what, Predicate<JsonNode> right) {
    Optional<Node> there = get(name);
    if (there.isPresent() && (there.get().scalar() == null || !right.test(there.get().scalar()))) {
      problems.add(
          there.get(), "here stands " + there.get().kind() + ", where " + what + " is meant.");
      return Optional.empty();
    }
    return there.map(Node::scalar);
  }
}
