// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.fields.Durations;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The settings that can be set by properties, named {@code cachette.} and the setting. */
final class SettingsProperties {

  static final String PREFIX = "cachette.";

  /** Set outside of a build, the whole build reports. */
  private static final String REPORT = "CACHETTE_REPORT";

  private static final int LARGEST_PORT = 65_535;

  private static final Pattern SIZE = Pattern.compile("(\\d{1,15}) ?(|KiB|MiB|GiB)");

  /** Properties that other parts of Cachette read. */
  private static final List<String> OTHERS = List.of("recording", "guard", "guardAllows", "cases");

  /**
   * A setting.
   *
   * @param name its name
   * @param allowed describes its values
   * @param setter sets it from text; throws {@link IllegalArgumentException} if it is invalid
   */
  private record Property(
      String name, String allowed, BiFunction<Settings, String, Settings> setter) {}

  private static final List<Property> ALL =
      List.of(
          new Property(
              "unexpectedCalls",
              constants(UnexpectedCalls.values()),
              (settings, text) -> settings.unexpectedCalls(UnexpectedCalls.valueOf(upper(text)))),
          new Property(
              "unusedStubs",
              constants(UnusedStubs.values()),
              (settings, text) -> settings.unusedStubs(UnusedStubs.valueOf(upper(text)))),
          new Property(
              "maxRequestBody",
              "a number of bytes, such as 67108864 or 64MiB",
              (settings, text) -> settings.maxRequestBody(Math.toIntExact(size(text)))),
          new Property(
              "maxCalls",
              "a positive number",
              (settings, text) -> settings.maxCalls(Integer.parseInt(text))),
          new Property(
              "maxCallBodies",
              "a number of bytes, such as 268435456 or 256MiB",
              (settings, text) -> settings.maxCallBodies(size(text))),
          new Property(
              "seed", "a whole number", (settings, text) -> settings.seed(Long.parseLong(text))),
          new Property(
              "cassetteFolder",
              "a path",
              (settings, text) -> settings.cassetteFolder(Path.of(text))),
          new Property(
              "contractFolder",
              "a path",
              (settings, text) -> settings.contractFolder(Path.of(text))),
          new Property(
              "stubFolder", "a path", (settings, text) -> settings.stubFolder(Path.of(text))),
          new Property(
              "interception", "true, false", (settings, text) -> settings.interception(flag(text))),
          new Property(
              "page", "a port, such as 8099", (settings, text) -> settings.livePage(port(text))),
          new Property("report", "a folder, such as target/cachette", SettingsProperties::report),
          new Property("cors", "true, false", (settings, text) -> settings.cors(flag(text))),
          new Property(
              "requestClientCertificates",
              "true, false",
              (settings, text) -> settings.requestClientCertificates(flag(text))),
          new Property(
              "conditionTimeout",
              "a duration, such as 2s or 500ms",
              (settings, text) -> settings.conditionTimeout(Durations.parse(text))),
          new Property(
              "servingThreads",
              "a positive number",
              (settings, text) -> settings.servingThreads(Integer.parseInt(text))));

  private SettingsProperties() {}

  /**
   * Returns the settings with those of the system properties that they do not set.
   *
   * @throws IllegalArgumentException if a property is unknown, or its value invalid
   */
  static Settings ofSystem(Settings settings) {
    requireKnown(System.getProperties().stringPropertyNames(), "the system properties");
    return apply(
        settings,
        name -> {
          String value = System.getProperty(name);
          return value == null && name.equals(PREFIX + "report") ? System.getenv(REPORT) : value;
        });
  }

  static Settings apply(Settings given, Function<String, @Nullable String> lookup) {
    Settings settings = given;
    for (Property property : ALL) {
      String text = given.isSet(property.name) ? null : lookup.apply(PREFIX + property.name);
      if (text != null) {
        settings = set(property, settings, text.strip());
      }
    }
    return settings;
  }

  private static Settings set(Property property, Settings settings, String text) {
    try {
      return property.setter.apply(settings, text);
    } catch (IllegalArgumentException | ArithmeticException invalid) {
      throw Refusals.argument(
          String.format(
              "The property %s%s is \"%s\". Allowed: %s.",
              PREFIX, property.name, text, property.allowed),
          invalid);
    }
  }

  /**
   * Refuses properties that no setting has, which are misspelled.
   *
   * @param names names of properties, of which those with the prefix are checked
   * @param source where they are from, for the message
   */
  static void requireKnown(Collection<String> names, String source) {
    List<String> known = new ArrayList<>(ALL.stream().map(Property::name).toList());
    known.addAll(OTHERS);
    for (String name : names) {
      String setting = name.startsWith(PREFIX) ? name.substring(PREFIX.length()) : "";
      if (!setting.isEmpty() && !known.contains(setting)) {
        throw Refusals.argument(
            String.format(
                "Unknown property \"%s\" in %s.%s Allowed: %s.",
                name,
                source,
                NameSuggester.closest(setting, known)
                    .map(it -> " Did you mean \"" + PREFIX + it + "\"?")
                    .orElse(""),
                NameSuggester.closestFirst(setting, known).stream()
                    .map(PREFIX::concat)
                    .collect(Collectors.joining(", "))));
      }
    }
  }

  private static Settings report(Settings settings, String text) {
    if (text.isEmpty()) {
      throw new IllegalArgumentException(text);
    }
    return settings.report(Path.of(text));
  }

  private static String constants(Enum<?>[] values) {
    return Arrays.stream(values).map(Enum::name).collect(Collectors.joining(", "));
  }

  private static String upper(String text) {
    return text.toUpperCase(Locale.ROOT);
  }

  private static boolean flag(String text) {
    if (!text.equals("true") && !text.equals("false")) {
      throw new IllegalArgumentException(text);
    }
    return Boolean.parseBoolean(text);
  }

  private static int port(String text) {
    int port = Integer.parseInt(text);
    if (port < 0 || port > LARGEST_PORT) {
      throw new IllegalArgumentException(text);
    }
    return port;
  }

  private static long size(String text) {
    Matcher size = SIZE.matcher(text);
    if (!size.matches()) {
      throw new IllegalArgumentException(text);
    }
    int shift =
        switch (size.group(2)) {
          case "KiB" -> 10;
          case "MiB" -> 20;
          case "GiB" -> 30;
          default -> 0;
        };
    return Math.multiplyExact(Long.parseLong(size.group(1)), 1L << shift);
  }
}
