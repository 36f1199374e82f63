// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep.result;

import dev.cachette.internal.text.Escapes;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** The results of a sweep as text: a table, and what was wrong in each run. */
final class SweepText {

  private static final int CELL = 5;
  private static final int LONGEST_CALL = 48;

  /** So many runs that went wrong in the same way are named. */
  private static final int SHOWN = 12;

  private SweepText() {}

  /** Returns the summary in one line. */
  static String summary(String name, List<SweptRun> runs) {
    long wrong = runs.stream().filter(run -> !run.isRight()).count();
    return String.format(
        "%s: %s of %d runs with a fault went wrong",
        name, wrong == 0 ? "none" : wrong, runs.size());
  }

  /** Returns the text of a failure. */
  static String failure(SweepResult result) {
    List<SweptRun> runs = result.runs();
    StringBuilder text = new StringBuilder(result.toString());
    text.append(".\n\n").append(result.table());
    Map<List<String>, List<SweptRun>> alike = new LinkedHashMap<>();
    for (SweptRun run : runs) {
      if (!run.isRight()) {
        alike.computeIfAbsent(run.findings(), unused -> new ArrayList<>()).add(run);
      }
    }
    for (List<SweptRun> group : alike.values()) {
      text.append('\n').append(failure(group.get(0)));
      if (group.size() > 1) {
        text.append("  The same in: ").append(ids(group.subList(1, group.size()))).append('\n');
      }
    }
    return text.toString();
  }

  private static String ids(List<SweptRun> runs) {
    String shown = runs.stream().limit(SHOWN).map(SweptRun::id).collect(Collectors.joining(", "));
    return runs.size() <= SHOWN ? shown : shown + ", and " + (runs.size() - SHOWN) + " more";
  }

  /** Returns what is wrong in one run, and how to run it alone. */
  static String failure(SweptRun run) {
    StringBuilder text = new StringBuilder();
    text.append(run).append('\n');
    run.findings().forEach(it -> text.append("  ").append(it.replace("\n", "\n  ")).append('\n'));
    text.append("  Calls of this run:\n");
    run.calls().forEach(it -> text.append("    ").append(it).append('\n'));
    if (run.calls().isEmpty()) {
      text.append("    none\n");
    }
    text.append(
        String.format(
            "  To run it alone: only(\"%s\"), or -Dcachette.sweep.only=%s\n",
            Escapes.json(run.id()), Escapes.shell(run.id())));
    return text.toString();
  }

  /** Returns the table: calls down, faults across. */
  static String table(List<SweptRun> runs, List<String> omitted) {
    Set<SweepFault> faults = EnumSet.noneOf(SweepFault.class);
    Map<Integer, Map<SweepFault, List<SweptRun>>> rows = new TreeMap<>();
    Map<Integer, String> calls = new LinkedHashMap<>();
    for (SweptRun run : runs) {
      faults.add(run.fault());
      calls.put(run.number(), run.number() + " " + run.call());
      rows.computeIfAbsent(run.number(), unused -> new TreeMap<>())
          .computeIfAbsent(run.fault(), unused -> new ArrayList<>())
          .add(run);
    }
    int width = calls.values().stream().mapToInt(String::length).max().orElse(0);
    width = Math.min(width, LONGEST_CALL);
    StringBuilder table = new StringBuilder(" ".repeat(width));
    faults.forEach(fault -> table.append(right(fault.heading())));
    table.append('\n');
    for (Map.Entry<Integer, Map<SweepFault, List<SweptRun>>> row : rows.entrySet()) {
      StringBuilder line = new StringBuilder(left(calls.get(row.getKey()), width));
      for (SweepFault fault : faults) {
        line.append(right(cell(row.getValue().getOrDefault(fault, List.of()))));
      }
      table.append(line.toString().stripTrailing()).append('\n');
    }
    table.append('\n').append(legend(faults, rows.values()));
    omitted.forEach(it -> table.append("Tried of ").append(it).append('\n'));
    return table.toString();
  }

  private static String left(String call, int width) {
    String cut = call.length() <= width ? call : call.substring(0, width - 3) + "...";
    return cut + " ".repeat(width - cut.length());
  }

  private static String right(String cell) {
    return " ".repeat(Math.max(1, CELL - cell.length())) + cell;
  }

  /** Returns the worst of the runs of a cell, since each member of a body has a run. */
  private static String cell(List<SweptRun> runs) {
    if (runs.isEmpty()) {
      return "";
    }
    if (runs.stream().anyMatch(run -> run.outcome() == Outcome.HUNG)) {
      return "HUNG";
    }
    if (runs.stream().anyMatch(run -> run.outcome() == Outcome.NOT_RUN)) {
      return "?";
    }
    if (runs.stream().anyMatch(run -> !run.isRight())) {
      return "FAIL";
    }
    if (runs.stream().allMatch(run -> run.outcome() == Outcome.NOT_MET)) {
      return "-";
    }
    int repeats = runs.stream().mapToInt(SweptRun::repeats).max().orElse(0);
    boolean failed = runs.stream().anyMatch(run -> run.outcome() == Outcome.FAILED_AS_ALLOWED);
    return failed ? "err" : repeats > 0 ? "ok+" + repeats : "ok";
  }

  private static String legend(
      Set<SweepFault> faults, Collection<Map<SweepFault, List<SweptRun>>> rows) {
    Set<String> cells =
        rows.stream()
            .flatMap(row -> row.values().stream())
            .map(SweepText::cell)
            .map(cell -> cell.startsWith("ok+") ? "ok+n" : cell)
            .collect(Collectors.toSet());
    Map<String, String> words = new LinkedHashMap<>();
    words.put("ok", "returned a right result");
    words.put("ok+n", "the same after n more calls");
    words.put("err", "threw what is allowed");
    words.put("FAIL", "wrong");
    words.put("HUNG", "did not end in time");
    words.put("-", "did not occur");
    words.put("?", "not run");
    String meanings =
        words.entrySet().stream()
            .filter(it -> cells.contains(it.getKey()))
            .map(it -> it.getKey() + " = " + it.getValue())
            .collect(Collectors.joining(", "));
    String headings =
        faults.stream()
            .filter(fault -> !fault.toString().equals("status " + fault.heading()))
            .map(fault -> fault.heading() + " = " + fault)
            .collect(Collectors.joining(", "));
    return wrapped(meanings) + wrapped(headings);
  }

  private static String wrapped(String text) {
    if (text.isEmpty()) {
      return "";
    }
    StringBuilder lines = new StringBuilder();
    int column = 0;
    for (String part : text.split("(?<=, )")) {
      if (column > 0 && column + part.length() > 100) {
        lines.append('\n');
        column = 0;
      }
      lines.append(part);
      column += part.length();
    }
    return lines.toString().replace(", \n", ",\n").stripTrailing() + "\n";
  }
}
