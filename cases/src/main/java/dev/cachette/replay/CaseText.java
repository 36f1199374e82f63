// SPDX-License-Identifier: Apache-2.0
package dev.cachette.replay;

import dev.cachette.replay.CaseFinding.Kind;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The result of a case as text. */
final class CaseText {

  private CaseText() {}

  static String of(CaseResult result) {
    StringBuilder text = new StringBuilder();
    text.append(
        String.format(
            "The case \"%s\" %s (%s:%d)%n%n",
            result.name(),
            result.isSame() ? "is as captured" : "differs from what was captured",
            result.file().getFileName(),
            result.line()));
    result.calls().forEach(call -> text.append("  ").append(call).append(newLine()));
    byCall(result).forEach((heading, findings) -> add(text, heading, findings));
    return text.toString();
  }

  static String withFix(CaseResult result) {
    return result.isSame() ? of(result) : of(result) + newLine() + fix(result) + newLine();
  }

  private static Map<String, List<CaseFinding>> byCall(CaseResult result) {
    Map<String, List<CaseFinding>> all = new LinkedHashMap<>();
    for (CaseFinding finding : result.findings()) {
      boolean isOnlyCall = finding.kind() == Kind.RESPONSE && result.calls().size() == 1;
      String heading =
          isOnlyCall ? finding.kind().toString() : finding.kind() + ": " + finding.call();
      all.computeIfAbsent(heading, it -> new ArrayList<>()).add(finding);
    }
    return all;
  }

  private static void add(StringBuilder text, String heading, List<CaseFinding> findings) {
    text.append(newLine()).append(heading).append(newLine());
    for (CaseFinding finding : findings) {
      if (!finding.place().isEmpty()) {
        text.append("  ").append(finding.place()).append(newLine());
      }
      if (!finding.expected().isEmpty() || !finding.actual().isEmpty()) {
        line(text, "expected", finding.expected());
        line(text, "actual", finding.actual());
      }
      if (!finding.cause().isEmpty()) {
        line(text, "cause", finding.cause());
      }
    }
  }

  private static void line(StringBuilder text, String label, String value) {
    text.append(String.format("    %-9s %s%n", label, value));
  }

  private static String fix(CaseResult result) {
    if (result.updated()) {
      return "The file was updated. Review it before you commit it.";
    }
    boolean isNew = result.findings().stream().anyMatch(it -> it.kind() == Kind.CALL_NEW);
    if (isNew) {
      return "Fix: if the new outgoing call is intended, capture the case again: nothing was"
          + " recorded that could answer it.";
    }
    return String.format(
        "Fix: correct the application; or, if this is intended, update the file with%n"
            + "-Dcachette.cases=update and review the change. For a value that differs each time,%n"
            + "add its place to \"_varying\" in the file.");
  }

  private static String newLine() {
    return System.lineSeparator();
  }
}
