// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.Generator;
import dev.cachette.internal.jsonpath.JsonPath;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** JSON that is generated: comparing, finding, and parsing. */
class GeneratedJsonTest {

  private static final int CASES = 2_000;

  @Test
  void theSameValueInOtherWordsDoesNotDiffer() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      JsonNode value = generator.json(4);
      String other = generator.otherwise(value);

      assertEquals(
          List.of(),
          JsonComparison.same(value).differences(Json.tree(other)),
          "seed " + seed + ": " + value + " and " + other);
    }
  }

  @Test
  void aChangedValueDiffersAtItsPath() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      JsonNode value = generator.object(4);
      JsonNode changed = value.deepCopy();
      Map<String, Runnable> changes = new TreeMap<>();
      leaves(Located.root(changed), changes);
      String path = generator.one(changes.keySet().toArray(String[]::new));
      changes.get(path).run();

      List<Difference> differences = JsonComparison.same(value).differences(changed);
      int number = seed;
      assertTrue(
          differences.stream().anyMatch(it -> it.at().equals(path)),
          () -> "seed " + number + ": " + path + " in " + value + ": " + differences);
    }
  }

  /** A normalised path selects exactly the value that it came from. */
  @Test
  void pathsOfFoundValuesFindThemAgain() {
    for (int seed = 0; seed < CASES; seed++) {
      JsonNode value = new Generator(seed).object(4);
      for (Located found : JsonPath.parse("$..*").find(value)) {
        List<Located> again = JsonPath.parse(found.path()).find(value);
        assertEquals(1, again.size(), found.path() + " in " + value);
        assertEquals(found.node(), again.get(0).node(), found.path() + " in " + value);
      }
    }
  }

  @Test
  void cutTextIsNotValidAndNothingElseIsThrown() {
    for (int seed = 0; seed < 300; seed++) {
      Generator generator = new Generator(seed);
      String text = generator.otherwise(generator.object(3));
      for (int end = 0; end < text.length() - 1; end++) {
        String cut = text.substring(0, end);
        assertFalse(Json.problemIn(cut).isEmpty(), cut);
      }
    }
  }

  /** Collects a change for each value that is not an object or array, by its path. */
  private static void leaves(Located place, Map<String, Runnable> into) {
    if (place.node() instanceof ObjectNode object) {
      for (Map.Entry<String, JsonNode> member : object.properties()) {
        Located child = place.member(member.getKey());
        into.put(child.path(), () -> object.put(member.getKey(), "changed"));
        leaves(child, into);
      }
    }
    if (place.node() instanceof ArrayNode array) {
      for (int at = 0; at < array.size(); at++) {
        int index = at;
        into.put(place.element(at).path(), () -> array.set(index, "changed"));
        leaves(place.element(at), into);
      }
    }
  }
}
