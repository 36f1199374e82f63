// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/** The report in short, in Markdown, for the summary page of a CI server. */
final class MarkdownSummary {

  private static final int LISTED = 20;
  private static final int EXPLAINED = 5;
  private static final int MOST_TEXT = 3_000;

  private final StringBuilder text = new StringBuilder();

  private MarkdownSummary() {}

  static String of(JsonNode run) {
    MarkdownSummary summary = new MarkdownSummary();
    summary.totals(run);
    summary.failed(run);
    summary.unexpected(run);
    summary.stubs(run);
    summary.descriptions(run);
    summary.cassettes(run);
    return summary.text.toString();
  }

  private void totals(JsonNode run) {
    JsonNode totals = run.path("totals");
    text.append("## HTTP calls of the tests\n\n");
    text.append(
        String.format(
            "%s, %d failed, %d unfinished; %s, %d unexpected.%n",
            counted(totals.path("tests").asInt(), "test"),
            totals.path("failed").asInt(),
            totals.path("unfinished").asInt(),
            counted(totals.path("calls").asInt(), "call"),
            totals.path("unexpected").asInt()));
  }

  private void failed(JsonNode run) {
    List<JsonNode> failed = new ArrayList<>();
    run.path("tests")
        .forEach(
            test -> {
              if (!test.path("outcome").asText().equals("passed")) {
                failed.add(test);
              }
            });
    list(
        "Tests that failed, or have no end",
        failed,
        test ->
            code(test.path("name").asText())
                + (test.has("failure")
                    ? ": " + plain(firstLine(test.path("failure").asText()))
                    : ": its JVM ended in the middle of it"));
  }

  private void unexpected(JsonNode run) {
    List<JsonNode> all = new ArrayList<>();
    List<String> lines = new ArrayList<>();
    for (JsonNode test : run.path("tests")) {
      for (JsonNode each : test.path("unexpected")) {
        all.add(each);
        lines.add(
            String.format(
                "%s, %s, in %s",
                code(each.path("summary").asText()),
                counted(each.path("times").asInt(), "time"),
                code(test.path("name").asText())));
      }
    }
    list("Unexpected calls", lines, it -> it);
    for (JsonNode each : all.subList(0, Math.min(EXPLAINED, all.size()))) {
      String explanation = each.path("explanation").asText();
      String shown = explanation.substring(0, Math.min(MOST_TEXT, explanation.length()));
      text.append("\n<details><summary>Why nothing answered ")
          .append(html(each.path("summary").asText()))
          .append("</summary>\n\n")
          .append(fence(shown))
          .append("text\n")
          .append(shown)
          .append('\n')
          .append(fence(shown))
          .append("\n\n</details>\n");
    }
  }

  private void stubs(JsonNode run) {
    List<JsonNode> unused = new ArrayList<>();
    List<String> neverGiven = new ArrayList<>();
    for (JsonNode stub : run.path("stubs")) {
      boolean isUsed = stub.path("calls").asInt() > 0;
      if (!isUsed && stub.path("unusedIn").asInt() > 0) {
        unused.add(stub);
      }
      for (JsonNode answer : stub.path("answers")) {
        if (isUsed && answer.path("calls").asInt() == 0) {
          neverGiven.add(code(answer.path("answer").asText()) + " of " + reference(stub));
        }
      }
    }
    list("Stubs that no test used", unused, stub -> reference(stub) + reason(stub));
    list("Answers that were never given", neverGiven, it -> it);
  }

  private static String reference(JsonNode stub) {
    return code(stub.path("name").asText()) + " (" + plain(stub.path("place").asText()) + ")";
  }

  private static String reason(JsonNode stub) {
    if (stub.has("coveredBy")) {
      return ": unreachable, as " + plain(stub.path("coveredBy").asText()) + " always wins";
    }
    return stub.has("beatenBy")
        ? ": " + plain(stub.path("beatenBy").asText()) + " answered its calls"
        : "";
  }

  private void descriptions(JsonNode run) {
    if (run.path("descriptions").isEmpty()) {
      return;
    }
    text.append("\n### API descriptions\n\n| service | documented responses | met by tests |\n");
    text.append("|---|---:|---:|\n");
    run.path("descriptions")
        .forEach(
            it ->
                text.append(
                    String.format(
                        "| %s | %d | %d (%d %%) |%n",
                        code(it.path("origin").asText()),
                        it.path("documented").asInt(),
                        it.path("met").asInt(),
                        it.path("percent").asInt())));
  }

  private void cassettes(JsonNode run) {
    List<JsonNode> stale = new ArrayList<>();
    List<JsonNode> recorded = new ArrayList<>();
    run.path("cassettes")
        .forEach(
            it -> {
              if (it.path("stale").asBoolean()) {
                stale.add(it);
              }
              if (it.path("recorded").asInt() > 0) {
                recorded.add(it);
              }
            });
    list(
        "Stale cassettes",
        stale,
        it -> code(it.path("name").asText()) + ", recorded at " + it.path("recordedAt").asText());
    list(
        "Cassettes that were recorded",
        recorded,
        it ->
            code(it.path("name").asText())
                + ", "
                + counted(it.path("recorded").asInt(), "exchange"));
  }

  private <T> void list(String title, List<T> all, Function<T, String> line) {
    if (all.isEmpty()) {
      return;
    }
    text.append("\n### ").append(title).append("\n\n");
    for (T each : all.subList(0, Math.min(LISTED, all.size()))) {
      text.append("- ").append(line.apply(each)).append('\n');
    }
    if (all.size() > LISTED) {
      text.append("- and ").append(all.size() - LISTED).append(" more\n");
    }
  }

  static String counted(int number, String what) {
    return number + " " + what + (number == 1 ? "" : "s");
  }

  private static String firstLine(String all) {
    return all.lines().filter(line -> !line.isBlank()).findFirst().orElse("");
  }

  /** Returns a text that Markdown does not read anything into. */
  private static String plain(String any) {
    return any.replaceAll("[\\r\\n]+", " ").replaceAll("([\\\\`*_{}\\[\\]()<>#+!|~&@])", "\\\\$1");
  }

  private static String code(String any) {
    String line = any.replaceAll("[\\r\\n]+", " ").replace("|", "\\|");
    String ticks = fence(line).length() > 3 || line.contains("`") ? fence(line) : "`";
    String space = line.contains("`") ? " " : "";
    return ticks + space + line + space + ticks;
  }

  private static String html(String any) {
    return any.replaceAll("[\\r\\n]+", " ").replace("&", "&amp;").replace("<", "&lt;");
  }

  /** Returns more backticks than are anywhere in a text in a row. */
  private static String fence(String content) {
    int longest = 2;
    int row = 0;
    for (char each : content.toCharArray()) {
      row = each == '`' ? row + 1 : 0;
      longest = Math.max(longest, row);
    }
    return "`".repeat(longest + 1);
  }
}
