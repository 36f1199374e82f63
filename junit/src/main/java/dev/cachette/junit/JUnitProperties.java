package dev.cachette.junit;

import dev.cachette.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.util.Properties;

/** The properties of {@code junit-platform.properties}, of which misspelled ones are refused. */
final class JUnitProperties {

  private static final String FILE = "junit-platform.properties";

  private JUnitProperties() {}

  /**
   * Checks the names of the properties.
   *
   * @throws IllegalArgumentException if one is unknown; the message suggests another
   */
  static void requireKnown() {
    ClassLoader loader = Thread.currentThread().getContextClassLoader();
    try (InputStream in = loader == null ? null : loader.getResourceAsStream(FILE)) {
      if (in != null) {
        Properties properties = new Properties();
        properties.load(in);
        Settings.requireKnownProperties(properties.stringPropertyNames(), FILE);
      }
    } catch (IOException unreadable) {
      throw new IllegalArgumentException(FILE + " cannot be read.", unreadable);
    }
  }
}
