// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.time.LocalDate;
import java.util.Optional;

/** Plans arrivals: finds the first high water of the day and books a berth for it. */
public final class HarbourDesk {

  private static final String STATION = "Marrow Bay";

  private final TideClient tides;
  private final BerthClient berths;

  /** Creates a desk with its own connections to the services. */
  public HarbourDesk(String token) {
    this(token, Optional.empty());
  }

  /** Creates a desk with a key for the tide service, if there is one. */
  public HarbourDesk(String token, Optional<String> tidesKey) {
    this.tides = new TideClient(tidesKey);
    this.berths = new BerthClient(token);
  }

  /**
   * Plans the arrival of a vessel.
   *
   * @throws HarbourException if a service fails, or if there is no high water that day
   */
  public Booking planArrival(Vessel vessel, LocalDate day) {
    Tides table = tides.tidesOf(STATION, day);
    if (table.high().isEmpty()) {
      throw new HarbourException("no high water at " + STATION + " on " + day);
    }
    return berths.book(vessel, table.high().get(0));
  }
}
