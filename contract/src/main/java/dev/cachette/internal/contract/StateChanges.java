// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.verification.GivenState;
import dev.cachette.verification.StateHandler;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Brings a provider into states, by functions or by HTTP. */
public final class StateChanges {

  private static final int SUCCESS = 2;
  private static final int HUNDRED = 100;

  private final Map<String, Handler> handlers = new LinkedHashMap<>();
  private Optional<URI> url = Optional.empty();

  private record Handler(StateHandler setUp, StateHandler tearDown) {}

  /** Thrown if there is no way into a state. */
  static final class Unknown extends Exception {

    private static final long serialVersionUID = 1;

    Unknown(String message) {
      super(message, null, false, false);
    }
  }

  /**
   * Adds a handler.
   *
   * @throws IllegalArgumentException if the state has one
   */
  public void handle(String state, StateHandler setUp, StateHandler tearDown) {
    if (handlers.putIfAbsent(state, new Handler(setUp, tearDown)) != null) {
      throw Refusals.argument("The state \"" + state + "\" has a handler already.");
    }
  }

  /**
   * Sets the URL for states without a handler.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public void by(String text) {
    url = Optional.of(BaseUrl.parse(text));
  }

  /** Brings the provider into a state, or out of it. */
  void change(GivenState state, boolean before, Contract contract, Clause clause, HttpClient http)
      throws Exception {
    Handler handler = handlers.get(state.name());
    if (handler != null) {
      (before ? handler.setUp : handler.tearDown).change(state);
    } else if (url.isPresent()) {
      post(url.get(), state, before, contract, clause, http);
    } else {
      throw new Unknown(unknown(state));
    }
  }

  private String unknown(GivenState state) {
    return String.format(
        "There is no handler for the state \"%s\".%s Handlers: %s.%nFix: given(\"%s\", state ->"
            + " ...), or givenBy(url); with the tool: --given-url.",
        state.name(),
        NameSuggester.question(state.name(), handlers.keySet()),
        handlers.isEmpty() ? "none" : "\"" + String.join("\", \"", handlers.keySet()) + "\"",
        state.name());
  }

  private static void post(
      URI url, GivenState state, boolean before, Contract contract, Clause clause, HttpClient http)
      throws Exception {
    ObjectNode body = StubNodes.object();
    body.put("state", state.name());
    ObjectNode parameters = body.putObject("parameters");
    state.parameters().forEach(parameters::set);
    body.put("when", before ? "before" : "after");
    body.put("consumer", contract.consumer());
    body.put("clause", clause.name());
    HttpResponse<String> response =
        http.send(
            HttpRequest.newBuilder(url)
                .header("content-type", "application/json")
                .POST(BodyPublishers.ofString(Json.text(body)))
                .build(),
            BodyHandlers.ofString());
    if (response.statusCode() / HUNDRED != SUCCESS) {
      throw new Unknown(
          String.format(
              "%s answered %d to the state \"%s\", %s the clause: %s",
              url,
              response.statusCode(),
              state.name(),
              before ? "before" : "after",
              response.body().lines().findFirst().orElse("no content")));
    }
  }
}
