// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import dev.cachette.Settings;
import java.time.Duration;
import java.util.List;

/** All services of Marrow Bay, running. */
public final class SimulatedHarbour implements AutoCloseable {

  /** The key for the tide service. */
  public static final String TIDES_KEY = "tides-7Q2w-9Lm4-Zk81";

  /** The secret of the harbour desk. */
  public static final String DESK_SECRET = "desk-4Rt9-Vx3p-Hn56";

  private final List<Service> services;

  /**
   * Starts them.
   *
   * @param time how long each takes to answer
   */
  public SimulatedHarbour(Duration time) {
    Identity identity = new Identity(DESK_SECRET, time);
    this.services =
        List.of(
            identity,
            new Tides(TIDES_KEY, time),
            new Berths(identity, time),
            new Vessels(time),
            new Customs(time));
  }

  /** Returns settings that map the production names to these services. */
  public Settings reachedBy(Settings settings) {
    Settings reached = settings;
    for (Service service : services) {
      reached = reached.realServiceAt(service.origin(), service.address());
    }
    return reached;
  }

  /** Returns the total number of calls. */
  public int calls() {
    return services.stream().mapToInt(Service::calls).sum();
  }

  /** Stops them. */
  @Override
  public void close() {
    services.forEach(Service::close);
  }
}
