// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.RealServices;
import java.util.Map;
import picocli.CommandLine.Option;

/** The option for services whose addresses differ from their names. */
final class ServiceAddresses {

  @Option(
      names = "--at",
      paramLabel = "ORIGIN=ADDRESS",
      converter = {OriginReader.class, OriginReader.class},
      description =
          "The address of a service, if it differs from its name:"
              + " https://tides.example=http://127.0.0.1:8085. Can be repeated.")
  private Map<String, String> addresses = Map.of();

  /** Returns all of them, by origin. */
  Map<String, String> all() {
    return addresses;
  }

  RealServices addedTo(RealServices services) {
    RealServices more = services;
    for (Map.Entry<String, String> each : addresses.entrySet()) {
      more = more.at(each.getKey(), each.getValue());
    }
    return more;
  }
}
