// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.json.Json;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;
import org.snakeyaml.engine.v2.common.Anchor;
import org.snakeyaml.engine.v2.events.AliasEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.events.NodeEvent;
import org.snakeyaml.engine.v2.events.ScalarEvent;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.resolver.ScalarResolver;
import org.snakeyaml.engine.v2.schema.JsonSchema;

/**
 * Parses YAML 1.2, which includes JSON, into a tree with line numbers. Only JSON's numbers,
 * booleans and null are recognised: {@code no} and {@code 2031-04-02} are strings.
 */
public final class Trees {

  private static final int LARGEST = 256 << 20;

  /** The maximum number of values in a text, including those that aliases repeat. */
  private static final long MOST_VALUES = 10_000_000;

  private static final JsonSchema SCHEMA = new JsonSchema();
  private static final ScalarResolver TAGS = SCHEMA.getScalarResolver();

  /** The maximum depth of a tree, also by aliases: the same as that of JSON. */
  private static final int MOST_LEVELS = 1_000;

  private static final String TOO_DEEP = "more than " + MOST_LEVELS + " levels of nested values.";

  private static final int SMALLEST_BUFFER = 8 * 1024;
  private static final int LARGEST_BUFFER = 8 * 1024 * 1024;

  private final ProblemListener problems;
  private final Iterator<Event> events;

  /** Values of anchors; null while the value is still being parsed. */
  private final Map<String, @Nullable Anchored> anchors = new HashMap<>();

  private long values;
  private int level;

  /** The deepest level so far, of the value that is being parsed. */
  private int deepest;

  /** An anchored value, the number of values in it, and the number of levels below it. */
  private record Anchored(Node node, long size, int levels) {}

  /** Thrown after a problem was reported with which the rest cannot be read. */
  private static final class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1;
  }

  private Trees(Iterator<Event> events, ProblemListener problems) {
    this.events = events;
    this.problems = problems;
  }

  /** Returns the tree of a text; empty if it is empty or malformed, which is reported. */
  public static Optional<Node> read(String text, ProblemListener problems) {
    try {
      Iterator<Event> events =
          new Parse(settings(text.length())).parseString(withoutTabs(text)).iterator();
      return new Trees(events, problems).document();
    } catch (MarkedYamlEngineException malformed) {
      problems.add(
          malformed.getProblemMark().map(mark -> mark.getLine() + 1).orElse(1),
          malformed.getProblemMark().map(mark -> mark.getColumn() + 1).orElse(1),
          "",
          message(malformed));
    } catch (Unreadable reported) {
      return Optional.empty();
    } catch (YamlEngineException malformed) {
      problems.add(1, 1, "", "not valid YAML: " + malformed.getMessage());
    }
    return Optional.empty();
  }

  /** With a small buffer, the time for a long string grows with the square of its length. */
  private static LoadSettings settings(int length) {
    return LoadSettings.builder()
        .setSchema(SCHEMA)
        .setCodePointLimit(LARGEST)
        .setBufferSize(Math.max(SMALLEST_BUFFER, Math.min(length, LARGEST_BUFFER)))
        .build();
  }

  /** JSON may be indented with tabs, which YAML forbids; strings contain escaped tabs only. */
  private static String withoutTabs(String text) {
    return text.indexOf('\t') >= 0 && Json.isValid(text) ? text.replace('\t', ' ') : text;
  }

  private static String message(MarkedYamlEngineException malformed) {
    String context = malformed.getContext() == null ? "" : malformed.getContext() + ", ";
    return "not valid YAML: " + context + malformed.getProblem();
  }

  private Optional<Node> document() {
    Node root = null;
    while (events.hasNext()) {
      Event event = events.next();
      if (event instanceof NodeEvent && root == null) {
        root = node(event, NodePath.ROOT);
      } else if (event instanceof NodeEvent) {
        Mark mark = event.getStartMark().orElseThrow();
        throw new YamlEngineException(
            "a second document begins in line "
                + (mark.getLine() + 1)
                + "; only one is supported.");
      }
    }
    return Optional.ofNullable(root);
  }

  private Node node(Event event, NodePath trail) {
    long before = ++values;
    Mark mark = event.getStartMark().orElseThrow();
    int line = mark.getLine() + 1;
    int column = mark.getColumn() + 1;
    if (values > MOST_VALUES) {
      throw unreadable(line, column, "it expands to more than " + MOST_VALUES + " values.");
    }
    if (level >= MOST_LEVELS) {
      throw unreadable(line, column, TOO_DEEP);
    }
    if (event instanceof AliasEvent alias) {
      return named(alias.getAlias().getValue(), new Node(line, column, trail, null, null, null));
    }
    Optional<Anchor> anchor = ((NodeEvent) event).getAnchor();
    if (anchor.isPresent()) {
      anchors.put(anchor.get().getValue(), null);
    }
    int deepestBefore = deepest;
    deepest = ++level;
    Node node =
        switch (event.getEventId()) {
          case MappingStart -> new Node(line, column, trail, null, members(trail), null);
          case SequenceStart -> new Node(line, column, trail, null, null, elements(trail));
          default -> new Node(line, column, trail, scalar((ScalarEvent) event), null, null);
        };
    if (anchor.isPresent()) {
      anchors.put(anchor.get().getValue(), new Anchored(node, values - before, deepest - level));
    }
    level--;
    deepest = Math.max(deepest, deepestBefore);
    return node;
  }

  /** Returns the value of an alias. */
  private Node named(String name, Node at) {
    Anchored anchored = anchors.get(name);
    if (anchored != null) {
      values += anchored.size();
      deepest = Math.max(deepest, level + 1 + anchored.levels());
      if (deepest > MOST_LEVELS) {
        throw unreadable(at.line(), at.column(), TOO_DEEP);
      }
      return anchored.node();
    }
    report(
        at,
        anchors.containsKey(name)
            ? "it contains itself, by an alias. Fix: write it without the alias."
            : "unknown anchor &" + name + " before this alias.");
    return at;
  }

  private Unreadable unreadable(int line, int column, String why) {
    problems.add(line, column, "", why);
    return new Unreadable();
  }

  private List<Node> elements(NodePath trail) {
    List<Node> elements = new ArrayList<>();
    for (Event each = events.next();
        each.getEventId() != Event.ID.SequenceEnd;
        each = events.next()) {
      elements.add(node(each, trail.element(elements.size())));
    }
    return Collections.unmodifiableList(elements);
  }

  private List<Node.Member> members(NodePath trail) {
    List<Node.Member> members = new ArrayList<>();
    Set<String> names = new HashSet<>();
    for (Event each = events.next();
        each.getEventId() != Event.ID.MappingEnd;
        each = events.next()) {
      Node key = node(each, trail);
      if (key.scalar() == null) {
        report(key, "a key must be a string, not " + key.kind() + ".");
      }
      String name = key.text();
      Node value = node(events.next(), trail.member(name));
      if (!names.add(name)) {
        report(key, "duplicate key \"" + name + "\". Fix: remove one of them.");
      }
      members.add(new Node.Member(name, key, value));
    }
    return Collections.unmodifiableList(members);
  }

  /**
   * Returns true for an unambiguous string: quoted, or no JSON word and not begun like a number.
   */
  private static boolean isText(ScalarEvent scalar, String text) {
    if (!scalar.getImplicit().canOmitTagInPlainScalar()) {
      return true;
    }
    return switch (text) {
      case "", "null", "true", "false" -> false;
      default -> "-0123456789".indexOf(text.charAt(0)) < 0;
    };
  }

  /** Returns true for a whole number that is not negative and fits in an int. */
  private static boolean isShortNumber(String text) {
    if (text.isEmpty() || text.length() > 9 || text.charAt(0) == '0' && text.length() > 1) {
      return false;
    }
    for (int at = 0; at < text.length(); at++) {
      if (text.charAt(at) < '0' || text.charAt(at) > '9') {
        return false;
      }
    }
    return true;
  }

  private void report(Node at, String message) {
    problems.add(at.line(), at.column(), at.path(), message);
  }

  private static JsonNode scalar(ScalarEvent scalar) {
    String text = scalar.getValue();
    if (scalar.getTag().isEmpty()) {
      // Most scalars are strings: the expressions for others are the most expensive part.
      if (isText(scalar, text)) {
        return JsonNodeFactory.instance.textNode(text);
      }
      if (isShortNumber(text)) {
        return JsonNodeFactory.instance.numberNode(Integer.parseInt(text));
      }
    }
    Optional<String> tag = scalar.getTag().filter(it -> !it.equals("!"));
    Tag kind =
        tag.map(Tag::new)
            .orElseGet(() -> TAGS.resolve(text, scalar.getImplicit().canOmitTagInPlainScalar()));
    if (kind.equals(Tag.STR)) {
      return JsonNodeFactory.instance.textNode(text);
    }
    if (kind.equals(Tag.NULL)) {
      return JsonNodeFactory.instance.nullNode();
    }
    boolean json = Json.isValid(text);
    return json ? Json.tree(text) : JsonNodeFactory.instance.textNode(text);
  }
}
