// SPDX-License-Identifier: Apache-2.0
package dev.cachette.conformance;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Generator;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import jakarta.json.JsonStructure;
import jakarta.json.JsonValue;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Another implementation of JSON and JSON Pointer gives the same results. */
class JsonStandardsTest {

  private static final int CASES = 2_000;

  /** RFC 6901. */
  @Test
  void pointersSelectTheSameValues() {
    for (int seed = 0; seed < CASES; seed++) {
      JsonNode document = new Generator(seed).object(3);
      JsonStructure elsewhere = (JsonStructure) parsed(document.toString());
      List<String> pointers = new ArrayList<>();
      collect(document, "", pointers);
      for (String pointer : pointers) {
        JsonNode found = JsonQuery.parse(pointer).value(document).orElseThrow();
        assertEquals(
            jakarta.json.Json.createPointer(pointer).getValue(elsewhere),
            parsed(found.toString()),
            () -> pointer + " in " + document);
      }
    }
  }

  private static void collect(JsonNode node, String pointer, List<String> into) {
    if (!pointer.isEmpty()) {
      into.add(pointer);
    }
    if (node.isObject()) {
      node.fieldNames()
          .forEachRemaining(
              name ->
                  collect(
                      node.get(name),
                      pointer + "/" + name.replace("~", "~0").replace("/", "~1"),
                      into));
    }
    for (int at = 0; node.isArray() && at < node.size(); at++) {
      collect(node.get(at), pointer + "/" + at, into);
    }
  }

  /** RFC 8259, and numbers by value. */
  @Test
  void valuesAreEqualAsElsewhere() {
    int equal = 0;
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      JsonNode one = generator.json(2);
      String other =
          seed % 2 == 0 ? generator.otherwise(one) : new Generator(seed + 1L).json(1).toString();

      boolean here = JsonComparison.same(one).differences(Json.tree(other)).isEmpty();

      assertEquals(
          canonical(parsed(one.toString())).equals(canonical(parsed(other))),
          here,
          "seed " + seed + ": " + one + " and " + other);
      equal += here ? 1 : 0;
    }
    assertEquals(true, equal > CASES / 4 && equal < CASES * 3 / 4, "equal: " + equal);
  }

  /** Numbers are equal there by scale, too. */
  private static Object canonical(JsonValue value) {
    return switch (value.getValueType()) {
      case NUMBER ->
          ((jakarta.json.JsonNumber) value).bigDecimalValue().stripTrailingZeros().toPlainString();
      case ARRAY -> value.asJsonArray().stream().map(JsonStandardsTest::canonical).toList();
      case OBJECT -> {
        var members = new java.util.TreeMap<String, Object>();
        value.asJsonObject().forEach((name, member) -> members.put(name, canonical(member)));
        yield members;
      }
      default -> value;
    };
  }

  private static JsonValue parsed(String json) {
    return jakarta.json.Json.createReader(new StringReader(json)).readValue();
  }
}
