// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** Multipart bodies (RFC 2046 section 5.1, RFC 7578). Each part has a format of its own. */
final class MultipartFormat implements BodyFormat {

  /** The start of the place of a part. */
  static final String PART = "part ";

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.name().startsWith("multipart/");
  }

  @Override
  public boolean isLike(Content content) {
    return false;
  }

  private static Optional<List<Part>> parts(Content content, Ignored ignored) {
    return content
        .parts()
        .value()
        .map(
            parts ->
                parts.stream()
                    .filter(part -> part.name().filter(ignored.fields()::contains).isEmpty())
                    .toList());
  }

  private static Content contentOf(Part part) {
    return Content.of(part.headers(), part.body());
  }

  /** Returns each part by name, type and content; the boundary differs in every request. */
  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return parts(content, ignored)
        .map(
            parts ->
                parts.stream()
                    .map(
                        part ->
                            part.name().orElse("")
                                + part.fileName().map(name -> " " + name).orElse("")
                                + ": "
                                + BodyFormats.canonical(contentOf(part), ignored))
                    .collect(Collectors.joining("\n", "multipart ", "")));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    Optional<List<Part>> want = parts(expected, ignored);
    Optional<List<Part>> have = parts(actual, ignored);
    if (want.isPresent() && have.isEmpty()) {
      return Optional.of(List.of(Difference.of("multipart content", actual.parts().problem())));
    }
    return want.map(parts -> differences(named(parts), named(have.orElseThrow()), ignored));
  }

  private static List<Difference> differences(
      Map<String, Part> wanted, Map<String, Part> actual, Ignored ignored) {
    List<Difference> differences = new ArrayList<>();
    wanted.forEach(
        (name, part) -> {
          if (!actual.containsKey(name)) {
            differences.add(Difference.of(shown(part), Difference.MISSING).at(PART + name));
            return;
          }
          Part other = actual.get(name);
          if (!part.fileName().equals(other.fileName())) {
            differences.add(
                Difference.of(
                        part.fileName().orElse("no file name"),
                        other.fileName().orElse("no file name"))
                    .at("file name of part " + name));
          }
          for (Difference each :
              BodyFormats.differences(contentOf(part), contentOf(other), ignored)) {
            differences.add(each.at(PART + name + (each.at().isEmpty() ? "" : ", " + each.at())));
          }
        });
    actual.forEach(
        (name, part) -> {
          if (!wanted.containsKey(name)) {
            differences.add(Difference.of("no such part", shown(part)).at(PART + name));
          }
        });
    return differences;
  }

  private static String shown(Part part) {
    return part.body().toString();
  }

  /** Returns the parts by name; further parts of the same name have a number, too. */
  private static Map<String, Part> named(List<Part> parts) {
    Map<String, Part> named = new LinkedHashMap<>();
    for (Part part : parts) {
      String name = part.name().orElse("");
      String unique = name;
      for (int number = 2; named.containsKey(unique); number++) {
        unique = name + " (" + number + ")";
      }
      named.put(unique, part);
    }
    return named;
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    Optional<List<Part>> old = parts(before, ignored);
    Optional<List<Part>> now = parts(after, ignored);
    return old.isPresent() && now.isPresent()
        ? Optional.of(changes(named(old.get()), named(now.get()), ignored))
        : Optional.empty();
  }

  private static List<BodyChange> changes(
      Map<String, Part> before, Map<String, Part> after, Ignored ignored) {
    List<BodyChange> changes = new ArrayList<>();
    before.forEach(
        (name, part) -> {
          if (after.containsKey(name)) {
            Ignored ignoring = part.name().map(Ignored::field).orElse(Ignored.NOTHING);
            BodyFormats.changes(contentOf(part), contentOf(after.get(name)), ignored)
                .forEach(change -> changes.add(change.within(name, ignoring)));
          } else {
            changes.add(BodyChange.gone(PART + name, shown(part)));
          }
        });
    after.forEach(
        (name, part) -> {
          if (!before.containsKey(name)) {
            changes.add(BodyChange.fresh(PART + name, shown(part)));
          }
        });
    return changes;
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return new TextFormat().condition(content);
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return new TextFormat().answer(content);
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    Reading<List<Part>> reading = content.parts();
    if (reading.value().isEmpty()) {
      return Optional.of(Reading.failed(reading.problem()));
    }
    Map<String, List<Part>> byName = new LinkedHashMap<>();
    for (Part part : reading.value().get()) {
      part.name()
          .ifPresent(name -> byName.computeIfAbsent(name, unused -> new ArrayList<>()).add(part));
    }
    ObjectNode object = JsonNodeFactory.instance.objectNode();
    byName.forEach((name, parts) -> object.set(name, value(name, parts, fields)));
    return Optional.of(Reading.of(object));
  }

  private static JsonNode value(String name, List<Part> parts, FieldTypes fields) {
    Content first = contentOf(parts.get(0));
    boolean json =
        fields.isJson(name) || BodyFormats.named(first.headers().first("content-type")).isJson();
    if (parts.size() == 1 && json && Json.isValid(first.text())) {
      return Json.tree(first.text());
    }
    return fields.value(name, parts.stream().map(part -> contentOf(part).text()).toList());
  }
}
