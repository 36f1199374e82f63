// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/**
 * Files of API descriptions by their names.
 *
 * @param label the name of this one
 * @param all the texts of all
 */
record TestFiles(String label, Map<String, String> all) implements DescriptionFile {

  /** Returns a description with no other files. */
  static Description described(String text) {
    return Description.read(new TestFiles("a.yaml", Map.of("a.yaml", text)));
  }

  /** Returns the description of the harbour. */
  static Description harbour() {
    return Description.read(
        new TestFiles(
            "harbour.openapi.yaml",
            Map.of(
                "harbour.openapi.yaml", resource("harbour.openapi.yaml"),
                "shared.yaml", resource("shared.yaml"))));
  }

  static String resource(String name) {
    try (InputStream in = TestFiles.class.getResourceAsStream("/" + name)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }

  @Override
  public String text() {
    return all.get(label);
  }

  @Override
  public DescriptionFile sibling(String name) {
    if (!all.containsKey(name)) {
      throw new IllegalArgumentException("there is no file " + name + ".");
    }
    return new TestFiles(name, all);
  }
}
