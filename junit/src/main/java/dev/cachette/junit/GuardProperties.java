// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import java.util.Optional;
import java.util.stream.Stream;

/**
 * The properties of the guard: system properties, else environment variables, else {@code
 * junit-platform.properties}.
 */
final class GuardProperties {

  private GuardProperties() {}

  /**
   * Returns true if the guard is on.
   *
   * @throws IllegalArgumentException if the value is neither on nor off
   */
  static boolean isOn() {
    String value = value("guard", "CACHETTE_GUARD").orElse("off");
    return switch (value) {
      case "on", "true" -> true;
      case "off", "false" -> false;
      default ->
          throw new IllegalArgumentException(
              "The property cachette.guard is \"" + value + "\". Allowed: on, off.");
    };
  }

  /** Returns the hosts that may be connected to. */
  static String[] allowed() {
    return value("guardAllows", "CACHETTE_GUARD_ALLOWS").stream()
        .flatMap(hosts -> Stream.of(hosts.split(",")))
        .map(String::strip)
        .filter(host -> !host.isEmpty())
        .toArray(String[]::new);
  }

  private static Optional<String> value(String name, String variable) {
    String property = "cachette." + name;
    return Optional.ofNullable(System.getProperty(property))
        .or(() -> Optional.ofNullable(System.getenv(variable)))
        .or(() -> Optional.ofNullable(JUnitProperties.ofFile().getProperty(property)))
        .map(String::strip);
  }
}
