// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.verification.GivenState;
import java.util.Map;
import java.util.TreeMap;

/** The parameters of states in the form of a request, so that their secrets are treated alike. */
final class SecretStates {

  private SecretStates() {}

  /** Returns the parameters of a state as the body of a request. */
  static Request request(GivenState state) {
    ObjectNode parameters = StubNodes.object();
    state.parameters().forEach(parameters::set);
    return new Request(
        "POST",
        Uri.parse("http://state.invalid/"),
        Headers.none().with("content-type", "application/json"),
        Body.of(Json.text(parameters)));
  }

  /** Returns the state with the parameters of such a request. */
  static GivenState read(GivenState state, Request request) {
    Map<String, JsonNode> parameters = new TreeMap<>();
    Json.tree(request.text())
        .properties()
        .forEach(it -> parameters.put(it.getKey(), it.getValue()));
    return new GivenState(state.name(), parameters);
  }
}
