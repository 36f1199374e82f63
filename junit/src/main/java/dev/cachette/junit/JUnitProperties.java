// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.CachetteInternals;
import java.io.IOException;
import java.io.InputStream;
import java.util.Properties;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;

/** The properties of {@code junit-platform.properties}, of which misspelled ones are refused. */
final class JUnitProperties {

  private static final String FILE = "junit-platform.properties";

  private JUnitProperties() {}

  /**
   * Checks the names of the properties, once in a run.
   *
   * @throws IllegalArgumentException if one is unknown; the message suggests another
   */
  static void requireKnown(ExtensionContext context) {
    context
        .getRoot()
        .getStore(Namespace.create(JUnitProperties.class))
        .getOrComputeIfAbsent(FILE, file -> requireKnown());
  }

  private static boolean requireKnown() {
    CachetteInternals.requireKnownProperties(ofFile().stringPropertyNames(), FILE);
    return true;
  }

  /** Returns the properties; none if there is no such file. */
  static Properties ofFile() {
    ClassLoader loader = Thread.currentThread().getContextClassLoader();
    Properties properties = new Properties();
    try (InputStream in = loader == null ? null : loader.getResourceAsStream(FILE)) {
      if (in != null) {
        properties.load(in);
      }
      return properties;
    } catch (IOException unreadable) {
      throw new IllegalArgumentException(FILE + " cannot be read.", unreadable);
    }
  }
}
