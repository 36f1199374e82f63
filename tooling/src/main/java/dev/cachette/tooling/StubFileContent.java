// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.StubFiles;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answer;
import dev.cachette.internal.stubfile.StubFile;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.match.Condition;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.StubReference;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** The stubs of a file in their parts. */
final class StubFileContent {

  private StubFileContent() {}

  /**
   * A stub.
   *
   * @param reference its name and place
   * @param line its request line
   * @param query the parameters that must have one value
   * @param asked all parameters that it requires
   * @param answers its answers
   * @param conditions its conditions in the form of stub files
   * @param behavior its other keys: how often and when it answers
   * @param unchecked whether it is excluded from checks against an API description
   */
  record Declared(
      StubReference reference,
      String line,
      Map<String, String> query,
      Set<String> asked,
      List<Answer> answers,
      List<JsonNode> conditions,
      Set<String> behavior,
      boolean unchecked) {}

  static List<Declared> of(Path file) {
    return reading(file, StubFileContent::of);
  }

  static List<Declared> of(StubFiles files) {
    return files.stubs().stream().map(StubFileContent::declared).toList();
  }

  /** Reads a part of a stub file. */
  static <T> T reading(Path file, Function<StubFiles, T> question) {
    Settings settings = Settings.defaults().withoutInterception().unusedStubs(UnusedStubs.IGNORE);
    try (Cachette net = Cachette.open(settings)) {
      return question.apply(net.load(file.toString()));
    }
  }

  private static Declared declared(Stub stub) {
    Map<String, String> query = new LinkedHashMap<>();
    Set<String> asked = new LinkedHashSet<>();
    List<JsonNode> conditions = new ArrayList<>();
    for (Condition condition : stub.pattern().conditions()) {
      Optional<JsonNode> written = MatchInternals.written(condition);
      written.ifPresent(conditions::add);
      written
          .map(it -> it.path("query"))
          .ifPresent(
              it ->
                  it.properties()
                      .forEach(
                          member -> {
                            asked.add(member.getKey());
                            if (member.getValue().isValueNode()) {
                              query.put(member.getKey(), member.getValue().asText());
                            }
                          }));
    }
    return new Declared(
        stub.reference(),
        stub.pattern().line(),
        query,
        asked,
        stub.answers(),
        conditions,
        behavior(stub),
        stub.isUnchecked());
  }

  private static Set<String> behavior(Stub stub) {
    Set<String> keys = new LinkedHashSet<>();
    Trees.read(stub.toStubFile(), (line, column, path, message) -> {})
        .ifPresent(file -> file.json().at("/stubs/0").fieldNames().forEachRemaining(keys::add));
    keys.retainAll(StubFile.behaviorKeys());
    return keys;
  }
}
