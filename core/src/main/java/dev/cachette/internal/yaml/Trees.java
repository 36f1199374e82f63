package dev.cachette.internal.yaml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.json.Json;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.schema.JsonSchema;

/**
 * Reads YAML 1.2, of which JSON is a part, into a tree that knows its lines. Only what JSON calls a
 * number, a truth value or null is one: {@code no} and {@code 2031-04-02} are texts.
 */
public final class Trees {

  private static final int LARGEST = 256 << 20;
  private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z_][A-Za-z0-9_-]*");

  private static final LoadSettings SETTINGS =
      LoadSettings.builder()
          .setSchema(new JsonSchema())
          .setCodePointLimit(LARGEST)
          .setMaxAliasesForCollections(1_000)
          .build();

  private final Complaints problems;
  private final Set<Object> within = new HashSet<>();

  private Trees(Complaints problems) {
    this.problems = problems;
  }

  /** The tree of a text; empty if it has none, or where it is malformed, which is a problem. */
  public static Optional<Node> read(String text, Complaints problems) {
    try {
      return new Compose(SETTINGS)
          .composeString(withoutTabs(text))
          .map(root -> new Trees(problems).node(root, ""));
    } catch (MarkedYamlEngineException malformed) {
      problems.add(
          malformed.getProblemMark().map(mark -> mark.getLine() + 1).orElse(1),
          malformed.getProblemMark().map(mark -> mark.getColumn() + 1).orElse(1),
          "",
          message(malformed));
    } catch (YamlEngineException malformed) {
      problems.add(1, 1, "", "this is no YAML: " + malformed.getMessage());
    }
    return Optional.empty();
  }

  /**
   * JSON may be indented by tabs, which YAML refuses; no text in it has one that is not escaped.
   */
  private static String withoutTabs(String text) {
    return text.indexOf('\t') >= 0 && Json.problemIn(text).isEmpty()
        ? text.replace('\t', ' ')
        : text;
  }

  private static String message(MarkedYamlEngineException malformed) {
    String context = malformed.getContext() == null ? "" : malformed.getContext() + ", ";
    return "this is no YAML: " + context + malformed.getProblem();
  }

  private Node node(org.snakeyaml.engine.v2.nodes.Node from, String path) {
    int line = from.getStartMark().map(mark -> mark.getLine() + 1).orElse(1);
    int column = from.getStartMark().map(mark -> mark.getColumn() + 1).orElse(1);
    Node empty = new Node(line, column, path, JsonNodeFactory.instance.nullNode(), null, null);
    if (!(from instanceof ScalarNode) && !within.add(from)) {
      problems.add(line, column, path, "it contains itself, by an alias. Mend: write it out.");
      return empty;
    }
    try {
      if (from instanceof MappingNode mapping) {
        return new Node(line, column, path, null, members(mapping, path), null);
      }
      if (from instanceof SequenceNode sequence) {
        List<Node> elements = new ArrayList<>();
        for (org.snakeyaml.engine.v2.nodes.Node each : sequence.getValue()) {
          elements.add(node(each, path + "[" + elements.size() + "]"));
        }
        return new Node(line, column, path, null, null, List.copyOf(elements));
      }
      return new Node(line, column, path, scalar((ScalarNode) from), null, null);
    } finally {
      within.remove(from);
    }
  }

  private List<Node.Member> members(MappingNode mapping, String path) {
    List<Node.Member> members = new ArrayList<>();
    Set<String> names = new HashSet<>();
    for (NodeTuple tuple : mapping.getValue()) {
      Node key = node(tuple.getKeyNode(), path);
      if (key.scalar() == null) {
        complain(key, "a key must be a text, not " + key.kind() + ".");
        continue;
      }
      String name = key.text();
      Node value = node(tuple.getValueNode(), below(path, name));
      if (!names.add(name)) {
        complain(key, "the key \"" + name + "\" stands there twice. Mend: leave one of them.");
      }
      members.add(new Node.Member(name, key, value));
    }
    return List.copyOf(members);
  }

  private void complain(Node at, String message) {
    problems.add(at.line(), at.column(), at.path(), message);
  }

  private static String below(String path, String name) {
    if (PLAIN_NAME.matcher(name).matches()) {
      return path.isEmpty() ? name : path + "." + name;
    }
    return path + "[\"" + name + "\"]";
  }

  private static @Nullable JsonNode scalar(ScalarNode scalar) {
    String text = scalar.getValue();
    if (scalar.getTag().equals(Tag.STR)) {
      return JsonNodeFactory.instance.textNode(text);
    }
    if (scalar.getTag().equals(Tag.NULL)) {
      return JsonNodeFactory.instance.nullNode();
    }
    boolean json = Json.problemIn(text).isEmpty();
    return json ? Json.tree(text) : JsonNodeFactory.instance.textNode(text);
  }
}
