// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.convert.StubsOfExchanges;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Converts lines with a request each to stubs, whose answers are to be filled in. */
public final class StubsOfLines {

  private static final Pattern METHOD_AND_URL =
      Pattern.compile("\\b([A-Z]{3,10})\\s+(https?://\\S+)");

  private static final Pattern CURL = Pattern.compile("(?:[$>%]\\s+)?curl(?:\\.exe)?\\s+");

  /** A command has at most this many lines. */
  private static final int LONGEST = 10_000;

  private StubsOfLines() {}

  /**
   * Returns the stubs, without repetitions; none if no line has a request.
   *
   * @param lines the lines
   * @param folder the folder of files that commands name
   * @param remark is told of lines that are skipped
   */
  public static List<ObjectNode> of(List<String> lines, Path folder, Consumer<String> remark) {
    Set<ObjectNode> stubs = new LinkedHashSet<>();
    for (int at = 0; at < lines.size(); at++) {
      String line = lines.get(at).strip();
      if (line.isBlank() || line.startsWith("#")) {
        continue;
      }
      try {
        if (CURL.matcher(line).lookingAt()) {
          Command command = command(lines, at);
          at += command.more();
          stubs.addAll(CurlLine.patterns(command.words(), folder));
        } else {
          stubs.add(stub(line));
        }
      } catch (IllegalArgumentException unreadable) {
        remark.accept(String.format("skipped, line %d: %s", at + 1, unreadable.getMessage()));
      }
    }
    List<ObjectNode> all = new ArrayList<>(stubs);
    all.forEach(stub -> stub.putObject("answer").put("status", 200));
    return all;
  }

  /**
   * A command.
   *
   * @param more the number of lines that follow its first one
   */
  private record Command(List<String> words, int more) {}

  /** Reads lines until all quotes are closed, and no line is continued. */
  private static Command command(List<String> lines, int first) {
    String text = CURL.matcher(lines.get(first).strip()).replaceFirst("curl ");
    ShellWords.Unfinished unfinished = null;
    for (int more = 0; more < LONGEST; more++) {
      try {
        return new Command(
            PromptWords.isOne(text) ? PromptWords.of(text) : ShellWords.of(text), more);
      } catch (ShellWords.Unfinished goesOn) {
        unfinished = unfinished == null ? goesOn : unfinished;
      }
      if (first + more + 1 == lines.size()) {
        break;
      }
      text += "\n" + lines.get(first + more + 1).stripTrailing();
    }
    throw unfinished;
  }

  private static ObjectNode stub(String line) {
    Matcher request = METHOD_AND_URL.matcher(line);
    if (!request.find()) {
      throw new IllegalArgumentException("expected METHOD URL");
    }
    return StubsOfExchanges.pattern(
        new Request(request.group(1), Uri.parse(request.group(2)), Headers.none(), Body.empty()));
  }
}
