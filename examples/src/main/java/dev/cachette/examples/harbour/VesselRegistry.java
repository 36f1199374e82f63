package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.Map;
import java.util.Optional;

/** Looks vessels up in the registry, by GraphQL. */
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
   * The vessel of this name; empty if the registry does not know it.
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
      throw new HarbourException("the registry cannot be understood", malformed);
    }
  }
}
