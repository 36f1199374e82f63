// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Modules;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Words that messages and pages avoid, because the field has better ones. */
class WordsTest {

  /** One per line; compared without case, at the boundaries of words. */
  private static final List<String> AVOIDED =
      """
      m[e]nd(s|ed|ing)?
      tro[u]ble(s)?
      silence\\(\\)
      cutShort
      brokenChunks
      noHttp
      resetWithin
      oldTlsOnly
      unavailableFirst
      undescribed
      plainAsSecure
      standingFor
      addressOf
      bodyTo
      asRecorded
      sparing
      spent
      nearest
      comes closest
      stands? (there|where|for a|twice)
      here stands
      is meant\\?
      would refuse
      the service never would
      time-outs?
      (is|are|was|be) no (HTTP|JSON|YAML|number|duration|text)
      (is|are) told
      there is (nothing|no .* at all)
      secrets taken out
      marker
      anew
      thereby
      to the letter
      whoever
      habits?
      class path
      content coding
      """
          .lines()
          .toList();

  private static final Pattern WORDS =
      Pattern.compile("(?i)(?<![\\w-])(" + String.join("|", AVOIDED) + ")(?!\\w)");

  /** Text blocks and strings; characters are skipped, because a quote may be one. */
  private static final Pattern LITERAL =
      Pattern.compile("'(?:[^'\\\\\n]|\\\\.)'|\"{3}[\\s\\S]*?\"{3}|\"(?:[^\"\\\\\n]++|\\\\.)*+\"");

  @ParameterizedTest
  @CsvSource({
    "here stands \"soon\", true",
    "a time-out, true",
    "unavailableFirst(2), true",
    "recommended, false"
  })
  void theListFinds(String text, boolean found) {
    assertEquals(found, WORDS.matcher(text).find());
  }

  @Test
  void messagesAvoidThem() throws IOException {
    List<String> found = new ArrayList<>();
    for (String module : Modules.OURS) {
      for (Path file : files(Path.of("..", module, "src/main"), ".java")) {
        // Concatenated literals are one message.
        String code = Files.readString(file).replaceAll("\"\\s*\\+\\s*\"", "");
        Matcher literal = LITERAL.matcher(code);
        while (literal.find()) {
          check(file, literal.group(), found);
        }
      }
    }
    assertEquals(List.of(), found);
  }

  @Test
  void pagesAvoidThem() throws IOException {
    List<String> found = new ArrayList<>();
    List<Path> pages = new ArrayList<>(files(Path.of("../docs"), ".md"));
    pages.addAll(files(Path.of("../docs"), ".json"));
    pages.addAll(List.of(Path.of("../README.md"), Path.of("../CHANGELOG.md")));
    pages.add(Path.of("../CONTRIBUTING.md"));
    for (Path page : pages) {
      check(page, Files.readString(page), found);
    }
    assertEquals(List.of(), found);
  }

  private static List<Path> files(Path folder, String extension) throws IOException {
    try (Stream<Path> files = Files.walk(folder)) {
      return files
          .filter(it -> it.toString().endsWith(extension))
          .filter(it -> !it.toString().contains("node_modules"))
          .toList();
    }
  }

  private static void check(Path file, String text, List<String> found) {
    Matcher word = WORDS.matcher(text);
    while (word.find()) {
      found.add(file + ": " + word.group());
    }
  }
}
