// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.StubFiles;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Response;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.StubReference;
import dev.cachette.stubfile.StubFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Checks a stub file, and those that it includes. */
final class StubFileCheck {

  /** Method, origin and path of a request line for one origin. */
  private static final Pattern LINE =
      Pattern.compile("(\\S+) (https?://[^/{}*?]+)((?:/[^?]*?)?)(?:\\{[?&].*|\\?.*)?");

  private StubFileCheck() {}

  static List<Finding> of(Path file, Descriptions descriptions) {
    try {
      List<Finding> findings = new ArrayList<>();
      if (ContractCheck.isContract(file)) {
        // Its clauses are for states of the provider, so several can be for one request.
        findings.addAll(secrets(file));
        findings.addAll(ContractCheck.of(file, descriptions));
      } else {
        findings.addAll(
            StubFileContent.reading(file, stubs -> findings(file, stubs, descriptions)));
      }
      return findings;
    } catch (StubFileException wrong) {
      return problems(wrong);
    }
  }

  /** Returns the problems of an invalid file. */
  static List<Finding> problems(StubFileException wrong) {
    return wrong.problems().stream()
        .map(
            it ->
                new Finding(
                    it.file(),
                    it.line(),
                    it.column(),
                    it.path(),
                    ToolingException.oneLine(it.message())))
        .toList();
  }

  private static List<Finding> findings(Path file, StubFiles stubs, Descriptions descriptions) {
    List<Finding> findings = new ArrayList<>();
    stubs
        .unreachable()
        .forEach(
            (stub, winner) ->
                findings.add(
                    placed(
                        stub, String.format("%s is unreachable: %s always wins.", stub, winner))));
    stubs.files().forEach(it -> findings.addAll(secrets(it)));
    List<StubFileContent.Declared> all = StubFileContent.of(stubs);
    findings.addAll(repeatedNames(all));
    for (StubFileContent.Declared stub : all) {
      misfits(stub, descriptions).forEach(it -> findings.add(placed(stub.reference(), it)));
    }
    return findings;
  }

  /** Finds what looks like a secret; what is only named like one is usually made up. */
  private static List<Finding> secrets(Path file) {
    List<Finding> findings = new ArrayList<>();
    List<String> lines = FileKind.lines(file);
    for (int at = 0; at < lines.size(); at++) {
      String line = lines.get(at);
      int place = Masking.shapes(line).indexOf(Masking.MASK);
      if (place >= 0 && line.indexOf(Masking.MASK) != place) {
        findings.add(
            new Finding(
                file.toString(),
                at + 1,
                place + 1,
                "",
                "looks like a secret. Fix: write one that is made up."));
      }
    }
    return findings;
  }

  /** A name twice makes assertions and {@code after} ambiguous. */
  private static List<Finding> repeatedNames(List<StubFileContent.Declared> all) {
    Map<String, StubReference> first = new HashMap<>();
    List<Finding> findings = new ArrayList<>();
    for (StubFileContent.Declared stub : all) {
      boolean named = !stub.reference().name().equals(Masking.line(stub.line()));
      StubReference before =
          named ? first.putIfAbsent(stub.reference().name(), stub.reference()) : null;
      if (before != null) {
        findings.add(
            placed(
                stub.reference(),
                String.format(
                    "%s has the name of the stub in %s. Fix: give it another one.",
                    stub.reference(), before.place())));
      }
    }
    return findings;
  }

  /** Returns the violations of a stub. */
  private static List<String> misfits(StubFileContent.Declared stub, Descriptions descriptions) {
    Matcher line = LINE.matcher(stub.line());
    if (!line.matches() || stub.unchecked()) {
      return List.of();
    }
    List<Response> answers =
        stub.answers().stream()
            .flatMap(it -> it instanceof ResponseAnswer plain ? Stream.of(plain) : Stream.empty())
            .map(ResponseAnswer::response)
            .toList();
    String path = line.group(3).isEmpty() ? "/" : line.group(3);
    return descriptions
        .at(line.group(2))
        .map(it -> it.misfits(line.group(1), path, stub.asked(), answers))
        .map(missed -> Misfits.of("\"" + stub.reference().name() + "\"", missed))
        .orElse(List.of());
  }

  /** Returns a finding at the place of a stub. */
  private static Finding placed(StubReference stub, String message) {
    return new Finding(stub.file(), stub.line(), 1, "", message);
  }
}
