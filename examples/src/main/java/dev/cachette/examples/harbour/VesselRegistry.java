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
      return vessel.isObject()
          ? Optional.of(new Vessel(vessel.path("name").asText(), vessel.path("draught").asDouble()))
          : Optional.empty();
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the response of the registry cannot be read", malformed);
    }
  }
}
