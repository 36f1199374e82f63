// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.model.DeclaredStub;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.secret.Masking;
import dev.cachette.match.Condition;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.schema.JsonSchema;

/** Writes stubs in the form of stub files. User code cannot be written, and is reported. */
public final class StubWriter {

  /** Keys with a single value, which cannot be merged. */
  private static final Set<String> SINGLE =
      Set.of("body", "basic", "bearer", "graphql", "soap", "not", "anyOf", "allOf");

  private static final String SECRETS =
      "# " + Masking.MASK + " replaces a secret, which is not written.\n";

  private StubWriter() {}

  /**
   * A stub as text, or why not.
   *
   * @param form the stub; empty if it cannot be written
   * @param obstacle what cannot be written; empty if nothing
   */
  public record Result(Optional<ObjectNode> form, String obstacle) {}

  /** Writes one stub. */
  public static Result write(DeclaredStub stub) {
    try {
      return new Result(Optional.of(form(stub.spec(), stub.after())), "");
    } catch (Unwritable obstacle) {
      return new Result(Optional.empty(), obstacle.getMessage());
    }
  }

  private static ObjectNode form(StubSpec stub, List<StubReference> after) throws Unwritable {
    ObjectNode form = StubNodes.object();
    if (!stub.reference().name().equals(DraftStub.nameOf(stub.pattern()))) {
      form.put("name", stub.reference().name());
    }
    form.put("request", stub.pattern().line());
    conditions(stub, form);
    checks(stub, form);
    answers(stub, form);
    StubKeys.write(stub, form);
    if (!after.isEmpty()) {
      form.set("after", StubNodes.texts(after.stream().map(StubReference::name).toList()));
    }
    return form;
  }

  /** Returns a stub file in YAML with all stubs that can be written; comments name the others. */
  public static String all(List<DeclaredStub> stubs) {
    List<ObjectNode> forms = new ArrayList<>();
    Set<Supplier<JsonNode>> collections = new LinkedHashSet<>();
    StringBuilder comments = new StringBuilder();
    for (DeclaredStub stub : stubs) {
      if (stub.collection().isPresent()) {
        collections.add(stub.collection().get());
        continue;
      }
      Result result = write(stub);
      result.form().ifPresent(forms::add);
      if (result.form().isEmpty()) {
        comments
            .append("# not written: ")
            .append(stub.spec().reference().toString().replaceAll("\\R", " "))
            .append(": ")
            .append(result.obstacle().replaceAll("\\R", " "))
            .append('\n');
      }
    }
    return comments + yaml(forms, collections.stream().map(Supplier::get).toList());
  }

  /** Returns a stub file in YAML with these stubs and collections, with their secrets masked. */
  public static String yaml(List<ObjectNode> stubs, List<JsonNode> collections) {
    List<ObjectNode> masked = stubs.stream().map(MaskedStub::of).toList();
    ObjectNode file = file(masked);
    if (!collections.isEmpty()) {
      file.putArray("collections").addAll(collections);
    }
    String yaml = yaml(file);
    return (yaml.contains(Masking.MASK) ? SECRETS : "") + yaml;
  }

  /** Returns a stub file with these stubs. */
  public static ObjectNode file(List<ObjectNode> stubs) {
    return StubNodes.member("stubs", JsonNodeFactory.instance.arrayNode().addAll(stubs));
  }

  /** Returns a stub file in YAML. */
  public static String yaml(ObjectNode file) {
    Object plain = Json.mapper().convertValue(file, Object.class);
    DumpSettings settings =
        DumpSettings.builder()
            .setSchema(new JsonSchema())
            .setDefaultFlowStyle(FlowStyle.BLOCK)
            .setIndicatorIndent(2)
            .setIndentWithIndicator(true)
            .setWidth(120)
            .setSplitLines(false)
            .build();
    return new Dump(settings, new QuotedTexts(settings)).dumpToString(plain);
  }

  /** Returns the request of a pattern, without the conditions that are functions. */
  public static ObjectNode request(RequestPattern pattern) {
    ObjectNode form = StubNodes.member("request", StubNodes.text(pattern.line()));
    conditions(
        pattern.conditions().stream().flatMap(it -> MatchInternals.written(it).stream()).toList(),
        form);
    return MaskedStub.of(form);
  }

  private static void conditions(StubSpec stub, ObjectNode form) throws Unwritable {
    List<JsonNode> written = new ArrayList<>();
    for (Condition condition : stub.pattern().conditions()) {
      written.add(
          MatchInternals.written(condition)
              .orElseThrow(
                  () ->
                      new Unwritable(
                          "its condition \"" + condition.description() + "\" is a function")));
    }
    conditions(written, form);
  }

  private static void conditions(List<JsonNode> written, ObjectNode form) {
    ArrayNode where = JsonNodeFactory.instance.arrayNode();
    written.stream().filter(it -> !join(form, it)).forEach(where::add);
    if (!where.isEmpty()) {
      form.set("where", where);
    }
  }

  /** Adds a condition to the existing ones, unless that changes their meaning. */
  private static boolean join(ObjectNode form, JsonNode condition) {
    for (Map.Entry<String, JsonNode> member : condition.properties()) {
      JsonNode there = form.get(member.getKey());
      boolean free = there == null && !member.getKey().equals("namespaces");
      boolean apart =
          there != null
              && !SINGLE.contains(member.getKey())
              && member.getValue().properties().stream().noneMatch(it -> there.has(it.getKey()));
      if (!free && !apart && !(there == null && !form.has("xpath"))) {
        return false;
      }
    }
    return StubNodes.merge(form, condition);
  }

  private static void checks(StubSpec stub, ObjectNode form) throws Unwritable {
    List<Optional<JsonNode>> written =
        stub.checks().stream()
            .map(StubCheck::condition)
            .map(condition -> condition.flatMap(MatchInternals::written))
            .toList();
    JsonNode all =
        StubNodes.all(written).orElseThrow(() -> new Unwritable("one of its checks is a function"));
    if (!all.isEmpty()) {
      form.set("check", all);
    }
  }

  private static void answers(StubSpec stub, ObjectNode form) throws Unwritable {
    List<JsonNode> written = new ArrayList<>();
    List<Answer> all = stub.order().answers();
    for (int at = 0, times; at < all.size(); at += times) {
      times = repetitions(all, at);
      JsonNode one = written(all.get(at));
      written.add(times == 1 ? one : repeated(one, times));
    }
    if (written.size() == 1) {
      form.set("answer", written.get(0));
    } else {
      form.set("answers", JsonNodeFactory.instance.arrayNode().addAll(written));
    }
  }

  /** Returns an answer as written. */
  static JsonNode written(Answer answer) throws Unwritable {
    return AnswerWriter.write(answer)
        .orElseThrow(
            () -> new Unwritable("its answer, " + answer + ", is computed, or waits for the test"));
  }

  private static int repetitions(List<Answer> all, int start) {
    int end = start + 1;
    while (end < all.size() && all.get(end) == all.get(start)) {
      end++;
    }
    return end - start;
  }

  private static ObjectNode repeated(JsonNode answer, int times) {
    ObjectNode form =
        answer.isObject()
            ? (ObjectNode) answer
            : StubNodes.member(answer.isNumber() ? "status" : "fault", answer);
    return form.put("repeated", times);
  }
}
