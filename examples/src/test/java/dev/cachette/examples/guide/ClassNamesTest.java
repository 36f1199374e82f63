// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Modules;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** A name means one class, in all modules: a reader need not look at the imports. */
class ClassNamesTest {

  private static final String PACKAGE_INFO = "package-info.java";

  @Test
  void noTwoClassesHaveTheSameName() throws IOException {
    Map<String, List<Path>> byName = new TreeMap<>();
    for (String module : Modules.OURS) {
      try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
        files
            .filter(file -> file.toString().endsWith(".java") && !file.endsWith(PACKAGE_INFO))
            .forEach(
                file ->
                    byName
                        .computeIfAbsent(file.getFileName().toString(), it -> new ArrayList<>())
                        .add(file));
      }
    }

    assertTrue(byName.containsKey("Cachette.java"), byName::toString);
    assertEquals(List.of(), byName.values().stream().filter(it -> it.size() > 1).toList());
  }
}
