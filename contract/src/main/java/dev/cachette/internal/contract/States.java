// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.verification.GivenState;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** The key {@code given}: states in words, or with parameters. */
public final class States {

  /** Its name in stub files. */
  public static final String KEY = "given";

  private States() {}

  /** Reads states, in their order; none for null. */
  public static List<GivenState> read(@Nullable JsonNode given) {
    List<GivenState> states = new ArrayList<>();
    if (given != null && given.isArray()) {
      given.forEach(each -> states.add(state(each)));
    } else if (given != null && !given.isNull()) {
      states.add(state(given));
    }
    return List.copyOf(states);
  }

  private static GivenState state(JsonNode node) {
    if (!node.isObject()) {
      return new GivenState(node.asText(), Map.of());
    }
    Map<String, JsonNode> parameters = new TreeMap<>();
    node.path("parameters").properties().forEach(it -> parameters.put(it.getKey(), it.getValue()));
    return new GivenState(node.path("state").asText(), parameters);
  }

  /** Writes states; empty if there are none. */
  public static Optional<JsonNode> write(List<GivenState> states) {
    if (states.isEmpty()) {
      return Optional.empty();
    }
    if (states.size() == 1) {
      return Optional.of(written(states.get(0)));
    }
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    states.forEach(each -> all.add(written(each)));
    return Optional.of(all);
  }

  private static JsonNode written(GivenState state) {
    if (state.parameters().isEmpty()) {
      return StubNodes.text(state.name());
    }
    ObjectNode node = StubNodes.member("state", StubNodes.text(state.name()));
    ObjectNode parameters = node.putObject("parameters");
    state.parameters().forEach(parameters::set);
    return node;
  }
}
