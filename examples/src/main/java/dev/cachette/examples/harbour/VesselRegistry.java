// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.Map;
import java.util.Optional;

/** Looks up vessels in the registry, with GraphQL. */
public final class VesselRegistry {

  private static final String DOCUMENT =
      """
      query VesselByName($name: String!) {
        vessel(name: $name) { name draught }
      }
      """;

  /** No vessel has a deeper draught, in metres. */
  private static final double DEEPEST = 30;

  private final Http http = new Http();
  private final ObjectMapper mapper = new ObjectMapper();

  /**
   * Returns the vessel with this name; empty if the registry does not have it.
   *
   * @throws HarbourException if the registry fails
   */
  public Optional<Vessel> find(String name) {
    try {
      String request =
          mapper.writeValueAsString(Map.of("query", DOCUMENT, "variables", Map.of("name", name)));
      String response =
          http.post("https://vessels.example/graphql", "application/json", request, 200);
      JsonNode vessel = mapper.readTree(response).path("data").path("vessel");
      return vessel.isObject() ? Optional.of(vessel(vessel)) : Optional.empty();
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the response of the registry cannot be read", malformed);
    }
  }

  private static Vessel vessel(JsonNode sent) {
    JsonNode draught = sent.path("draught");
    if (!sent.path("name").isTextual() || !draught.isNumber() || draught.asDouble() > DEEPEST) {
      throw new HarbourException("the registry has sent an impossible vessel: " + sent);
    }
    return new Vessel(sent.path("name").textValue(), draught.asDouble());
  }
}
