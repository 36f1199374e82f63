// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.time.LocalDate;
import java.util.Optional;

/** Plans an arrival with all services of the harbour. */
public final class Arrival {

  private final String deskSecret;
  private final String tidesKey;

  /** Creates a planner with these credentials. */
  public Arrival(String deskSecret, String tidesKey) {
    this.deskSecret = deskSecret;
    this.tidesKey = tidesKey;
  }

  /**
   * Plans it: looks the vessel up, books a berth by the tides, declares the cargo.
   *
   * @return berth and declaration
   * @throws HarbourException if a service fails, or the vessel is unknown
   */
  public String plan(String vesselName, LocalDate day, int tons) {
    String token = new Identity().token("desk", deskSecret);
    Vessel vessel =
        new VesselRegistry()
            .find(vesselName)
            .orElseThrow(() -> new HarbourException("unknown vessel: " + vesselName));
    Booking booking = new HarbourDesk(token, Optional.of(tidesKey)).planArrival(vessel, day);
    String declaration = new CustomsClient().declare(vessel.name(), tons);
    return "berth " + booking.berth() + " from " + booking.from() + ", declared as " + declaration;
  }
}
