// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A page of docs/guide. Each block below a comment such as {@code <!-- snippet counts -->} or
 * {@code <!-- output unused -->} is held against what is compiled or said; with {@code
 * -Dguide.refresh=true} it is written again.
 */
record Guide(Path file) {

  private static final Path FOLDER = Path.of("..", "docs", "guide");
  private static final boolean REFRESH = Boolean.getBoolean("guide.refresh");
  private static final Pattern BLOCK =
      Pattern.compile("<!-- (snippet|output) ([a-z-]+) -->\n```[a-z]*\n(.*?)```\n", Pattern.DOTALL);

  static Guide page(String name) {
    return new Guide(FOLDER.resolve(name + ".md"));
  }

  void assertOutput(String name, String said) {
    assertBlock("output", name, said.stripTrailing() + "\n");
  }

  /** Compares every snippet of the page with its source. */
  void assertSnippets(String source) throws IOException {
    for (String name : names("snippet")) {
      assertBlock("snippet", name, snippet(source, name));
    }
  }

  List<String> names(String kind) throws IOException {
    List<String> names = new ArrayList<>();
    Matcher block = BLOCK.matcher(Files.readString(file));
    while (block.find()) {
      if (block.group(1).equals(kind)) {
        names.add(block.group(2));
      }
    }
    return names;
  }

  private void assertBlock(String kind, String name, String expected) {
    try {
      String page = Files.readString(file);
      Matcher block = BLOCK.matcher(page);
      while (block.find()) {
        if (block.group(1).equals(kind) && block.group(2).equals(name)) {
          if (REFRESH) {
            Files.writeString(
                file, page.substring(0, block.start(3)) + expected + page.substring(block.end(3)));
          } else {
            assertEquals(expected, block.group(3), () -> name + " in " + file + refreshing());
          }
          return;
        }
      }
      throw new AssertionError("There is no block <!-- " + kind + " " + name + " --> in " + file);
    } catch (IOException failed) {
      throw new UncheckedIOException(failed);
    }
  }

  private static String refreshing() {
    return "; mvn verify -pl examples -am -Dguide.refresh=true writes it again";
  }

  /**
   * Returns the lines between {@code // snippet name} and {@code // end}, without their common
   * indent.
   */
  private static String snippet(String source, String name) {
    Matcher region =
        Pattern.compile("( *)// snippet " + name + "\n(.*?)\n\\s*// end\n", Pattern.DOTALL)
            .matcher(source);
    if (!region.find()) {
      throw new AssertionError("There is no // snippet " + name);
    }
    String indent = region.group(1);
    return region.group(2).replaceAll("(?m)^" + indent, "").strip() + "\n";
  }
}
