// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.extension.ParameterResolutionException;

/**
 * Quarkus runs a test in a class loader of its own, and copies the parameters of its methods into
 * that one, which is impossible for a Cachette: it would fail with an internal error.
 */
final class OtherLoaders {

  private static final String SETTING = "quarkus.class-loading.parent-first-artifacts";
  private static final String OURS = "dev.cachette:";
  private static final String QUARKUS = "io.quarkus.";

  private static final List<String> FILES =
      List.of(
          "application.properties",
          "application.yaml",
          "application.yml",
          "META-INF/microprofile-config.properties");

  private OtherLoaders() {}

  /**
   * Refuses a parameter that Quarkus would have to copy.
   *
   * @throws ParameterResolutionException with the setting that helps
   */
  static void requireSame(Class<?> test) {
    if (isRunByQuarkus(test) && !isLoadedByQuarkus() && !isSet(test.getClassLoader())) {
      throw new ParameterResolutionException(
          "Quarkus runs "
              + test.getSimpleName()
              + " in a class loader with another copy of Cachette, and cannot give it this one."
              + " Fix: in src/test/resources/application.properties, "
              + SETTING
              + "=dev.cachette:cachette,dev.cachette:cachette-junit");
    }
  }

  private static boolean isRunByQuarkus(Class<?> test) {
    return Arrays.stream(test.getAnnotations())
        .anyMatch(annotation -> annotation.annotationType().getName().startsWith(QUARKUS));
  }

  /** As later releases do from the start. */
  private static boolean isLoadedByQuarkus() {
    return Cachette.class.getClassLoader().getClass().getName().startsWith(QUARKUS);
  }

  private static boolean isSet(ClassLoader loader) {
    return isOurs(System.getProperty(SETTING, ""))
        || isOurs(System.getenv().getOrDefault("QUARKUS_CLASS_LOADING_PARENT_FIRST_ARTIFACTS", ""))
        || FILES.stream().anyMatch(file -> isIn(loader, file));
  }

  private static boolean isIn(ClassLoader loader, String file) {
    try {
      for (URL each : Collections.list(loader.getResources(file))) {
        try (InputStream in = each.openStream()) {
          if (isOurs(new String(in.readAllBytes(), StandardCharsets.UTF_8))) {
            return true;
          }
        }
      }
      return false;
    } catch (IOException unreadable) {
      return false;
    }
  }

  private static boolean isOurs(String text) {
    return text.contains(OURS);
  }
}
