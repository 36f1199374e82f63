// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.examples.harbour.VesselRegistry;
import dev.cachette.junit.InterceptHttp;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** GraphQL: one URL, told apart by operation and variables. */
@InterceptHttp
class VesselRegistryTest {

  private static final String GRAPHQL = "POST https://vessels.example/graphql";

  private final VesselRegistry registry = new VesselRegistry();

  @BeforeEach
  void nothingIsRegistered(Cachette net) {
    net.stub(GRAPHQL)
        .where(graphql().operation("VesselByName"))
        .answer(json("{\"data\": {\"vessel\": null}}"));
  }

  @Test
  void findsAVessel(Cachette net) {
    net.stub(GRAPHQL)
        .where(graphql().operation("VesselByName").variable("name", "Kittiwake"))
        .where(graphql().query().field("vessel"))
        .answer(json("{\"data\": {\"vessel\": {\"name\": \"Kittiwake\", \"draught\": 4.2}}}"));

    assertEquals(Optional.of(new Vessel("Kittiwake", 4.2)), registry.find("Kittiwake"));
    assertEquals(Optional.empty(), registry.find("Skua"));

    net.calls(GRAPHQL).where(graphql().variable("name", "Skua")).assertCount(1);
  }
}
