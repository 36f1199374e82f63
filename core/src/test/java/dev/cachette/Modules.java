// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/** The modules whose code users run, in the order of the build. */
public final class Modules {

  private static final Set<String> OTHERS =
      Set.of("bom", "client-matrix", "examples", "examples-web", "benchmarks");

  /** All of them, by the build file of the folder around the module that is tested. */
  public static final List<String> OURS = read();

  private Modules() {}

  private static List<String> read() {
    try {
      String build = Files.readString(Path.of("..", "pom.xml"));
      return Pattern.compile("<module>(.*?)</module>")
          .matcher(build)
          .results()
          .map(found -> found.group(1))
          .filter(module -> !OTHERS.contains(module))
          .toList();
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }
}
