// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

/** Reads the values of {@code --secret}. */
final class Secrets {

  private Secrets() {}

  /**
   * Returns a value; that of the environment variable if it is empty.
   *
   * @throws WrongUsage if there is none
   */
  static String value(String name, String given) {
    String value = given.isEmpty() ? System.getenv().getOrDefault(name, "") : given;
    if (value.isEmpty()) {
      throw new WrongUsage(
          "--secret " + name + "= has no value, and there is no such environment variable.");
    }
    return value;
  }
}
