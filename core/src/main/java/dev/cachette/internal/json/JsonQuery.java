// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.jsonpath.JsonPath;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A place in a JSON value: a JSONPath (RFC 9535), which begins with {@code $}, or a JSON Pointer
 * (RFC 6901), which begins with a slash or is empty.
 */
public final class JsonQuery {

  private static final Pattern LENGTH = Pattern.compile("(?:length|count)\\((\\$.*)\\)");

  private static final int SHOWN = 8;

  private final String text;
  private final Function<JsonNode, List<Located>> search;

  /** The names and numbers that lead to the only possible node; empty if there can be several. */
  private final List<String> steps;

  private JsonQuery(String text, Function<JsonNode, List<Located>> search, List<String> steps) {
    this.text = text;
    this.search = search;
    this.steps = List.copyOf(steps);
  }

  /**
   * Parses a query.
   *
   * @throws IllegalArgumentException if it is malformed; the message marks the place
   */
  public static JsonQuery parse(String text) {
    if (text == null) {
      throw Refusals.argument("The JSON path must not be null. Fix: write $.member.");
    }
    if (text.startsWith("$")) {
      JsonPath path = JsonPath.parse(text);
      return new JsonQuery(text, path::find, path.steps());
    }
    if (text.isEmpty() || text.startsWith("/")) {
      List<String> steps = pointer(text);
      return new JsonQuery(text, root -> follow(steps, root), steps);
    }
    Matcher function = LENGTH.matcher(text);
    throw Refusals.argument(
        function.matches()
            ? String.format(
                "\"%s\" is not a JSONPath: RFC 9535 has functions only in filters.\n"
                    + "Fix: write \"%s\" with the value size(...).",
                text, function.group(1))
            : String.format(
                "\"%s\" is neither a JSONPath nor a JSON Pointer.\nFix: write $.%s, or /%s.",
                text, text, text));
  }

  /** Returns the selected nodes. */
  public List<Located> find(JsonNode root) {
    return search.apply(root);
  }

  /** Returns the selected node; an array of nodes if it can select several, which may be none. */
  public Optional<JsonNode> value(JsonNode root) {
    List<Located> found = find(root);
    if (isSingular() || found.isEmpty()) {
      return found.stream().map(Located::node).findFirst();
    }
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    found.forEach(located -> all.add(located.node()));
    return Optional.of(all);
  }

  /** Returns the name of the last member on its way; empty if there is none. */
  public String name() {
    String bare = text.replaceAll("(?:\\[[^\\[']*])+$", "");
    if (bare.endsWith("']")) {
      return bare.substring(bare.lastIndexOf("['") + 2, bare.length() - 2);
    }
    return bare.substring(Math.max(bare.lastIndexOf('.'), bare.lastIndexOf('/')) + 1);
  }

  /** Returns true if it can select one node at most. */
  public boolean isSingular() {
    return !steps.isEmpty() || text.isEmpty() || text.equals("$");
  }

  /** Explains why it selects nothing: how far the path leads, and a similar name. */
  public Optional<String> whyNothing(JsonNode root) {
    Located reached = Located.root(root);
    for (String step : steps) {
      Located next = step(reached, step);
      if (next.node().isMissingNode()) {
        return Optional.of(stopped(reached, step));
      }
      reached = next;
    }
    return Optional.empty();
  }

  private static Located step(Located from, String step) {
    boolean index = from.node().isArray() && step.matches("0|[1-9][0-9]{0,8}");
    return index ? from.element(Integer.parseInt(step)) : from.member(step);
  }

  private static String stopped(Located at, String step) {
    if (at.node().isArray()) {
      return String.format("%s is an array of %d", at.path(), at.node().size());
    }
    if (!at.node().isObject()) {
      return String.format("%s is %s, not an object", at.path(), JsonComparison.type(at.node()));
    }
    List<String> names = new ArrayList<>();
    at.node().fieldNames().forEachRemaining(names::add);
    return NameSuggester.closest(step, names)
        .map(near -> String.format("%s has \"%s\", but no \"%s\"", at.path(), near, step))
        .orElseGet(() -> String.format("%s has no \"%s\", only %s", at.path(), step, shown(names)));
  }

  private static String shown(List<String> names) {
    return names.size() <= SHOWN
        ? names.toString()
        : names.subList(0, SHOWN) + " and " + (names.size() - SHOWN) + " more";
  }

  private static List<Located> follow(List<String> steps, JsonNode root) {
    Located reached = Located.root(root);
    for (String step : steps) {
      reached = step(reached, step);
    }
    return reached.node().isMissingNode() ? List.of() : List.of(reached);
  }

  private static List<String> pointer(String text) {
    List<String> steps = new ArrayList<>();
    for (int at = text.indexOf('~'); at >= 0; at = text.indexOf('~', at + 1)) {
      if (at + 1 == text.length() || text.charAt(at + 1) != '0' && text.charAt(at + 1) != '1') {
        throw Refusals.argument(
            String.format(
                "Malformed JSON Pointer (RFC 6901) \"%s\", at column %d: incomplete escape.\n"
                    + "Fix: write ~0 for a tilde, ~1 for a slash.",
                text, at + 1));
      }
    }
    if (!text.isEmpty()) {
      for (String part : text.substring(1).split("/", -1)) {
        steps.add(part.replace("~1", "/").replace("~0", "~"));
      }
    }
    return steps;
  }

  @Override
  public String toString() {
    return text;
  }
}
