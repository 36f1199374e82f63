// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.URI;

/** Prints the tides; the service's URL is configurable. */
public final class TideCommand {

  private TideCommand() {}

  /**
   * Prints the tides of a station.
   *
   * @param arguments the station
   */
  public static void main(String[] arguments) throws IOException {
    run(arguments[0], System.out);
  }

  static void run(String station, PrintStream out) throws IOException {
    String url = System.getProperty("tides.url", "https://tides.example");
    URI tides = URI.create(url + "/v1/stations/" + station + "/tides");
    try (InputStream in = tides.toURL().openStream()) {
      in.transferTo(out);
    }
  }
}
