package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.model.ActivePeriod;
import dev.cachette.internal.model.AnswerOrder;
import dev.cachette.internal.model.Behavior;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.match.Condition;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
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
  public static Result write(StubRule rule) {
    StubSpec spec = rule.spec();
    ObjectNode form = JsonNodeFactory.instance.objectNode();
    if (!spec.reference().name().equals(DraftStub.nameOf(spec.pattern()))) {
      form.put("name", spec.reference().name());
    }
    form.put("request", spec.pattern().line());
    return conditions(spec, form)
        .or(() -> checks(spec, form))
        .or(() -> answers(spec, form))
        .or(() -> when(spec, rule.after(), form))
        .or(() -> onCall(spec, form))
        .or(() -> behaviors(spec, form))
        .map(obstacle -> new Result(Optional.empty(), obstacle))
        .orElseGet(() -> new Result(Optional.of(form), ""));
  }

  /** Returns a stub file in YAML with all stubs that can be written; comments name the others. */
  public static String all(List<StubRule> rules) {
    List<ObjectNode> forms = new ArrayList<>();
    Set<Supplier<JsonNode>> collections = new LinkedHashSet<>();
    StringBuilder comments = new StringBuilder();
    for (StubRule rule : rules) {
      if (rule.collection().isPresent()) {
        collections.add(rule.collection().get());
        continue;
      }
      Result result = write(rule);
      result.form().ifPresent(forms::add);
      if (result.form().isEmpty()) {
        comments
            .append("# not written: ")
            .append(rule.reference().toString().replaceAll("\\R", " "))
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

  private static Optional<String> conditions(StubSpec spec, ObjectNode form) {
    ArrayNode where = JsonNodeFactory.instance.arrayNode();
    for (Condition condition : spec.pattern().conditions()) {
      Optional<JsonNode> written = MatchInternals.written(condition);
      if (written.isEmpty()) {
        return Optional.of("its condition \"" + condition.description() + "\" is a function");
      }
      if (!join(form, written.get())) {
        where.add(written.get());
      }
    }
    if (!where.isEmpty()) {
      form.set("where", where);
    }
    return Optional.empty();
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

  private static Optional<String> checks(StubSpec spec, ObjectNode form) {
    List<Optional<JsonNode>> written =
        spec.checks().stream()
            .map(StubCheck::condition)
            .map(condition -> condition.flatMap(MatchInternals::written))
            .toList();
    Optional<JsonNode> all = StubNodes.all(written);
    if (all.isPresent() && !written.isEmpty()) {
      form.set("check", all.get());
    }
    return all.isPresent() ? Optional.empty() : Optional.of("one of its checks is a function");
  }

  private static Optional<String> answers(StubSpec spec, ObjectNode form) {
    List<JsonNode> written = new ArrayList<>();
    List<Answer> all = spec.order().answers();
    for (int at = 0, times; at < all.size(); at += times) {
      Answer answer = all.get(at);
      times = repetitions(all, at);
      Optional<JsonNode> one = AnswerWriter.write(answer);
      if (one.isEmpty()) {
        return Optional.of(unwritable(answer));
      }
      written.add(times == 1 ? one.get() : repeated(one.get(), times));
    }
    if (written.size() == 1) {
      form.set("answer", written.get(0));
    } else {
      form.set("answers", JsonNodeFactory.instance.arrayNode().addAll(written));
    }
    return Optional.empty();
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

  private static String unwritable(Answer answer) {
    return "its answer, " + answer + ", is computed, or waits for the test";
  }

  private static Optional<String> when(StubSpec spec, List<StubReference> after, ObjectNode form) {
    AnswerOrder order = spec.order();
    put(form, "looping", order.then() == AnswerOrder.Then.FIRST_AGAIN);
    put(form, "onceEach", order.then() == AnswerOrder.Then.USED_UP);
    put(form, "overriding", spec.has(StubSpec.Trait.OVERRIDING));
    put(form, "unchecked", spec.has(StubSpec.Trait.UNCHECKED));
    order.limit().ifPresent(calls -> form.put("times", calls));
    ActivePeriod period = spec.period();
    if (!period.from().equals(Instant.MIN)) {
      form.put("from", period.from().toString());
    }
    if (!period.until().equals(Instant.MAX)) {
      form.put("until", period.until().toString());
    }
    spec.bodyFile().ifPresent(file -> form.put("saveBodyTo", file));
    if (!after.isEmpty()) {
      form.set("after", StubNodes.texts(after.stream().map(StubReference::name).toList()));
    }
    return Optional.empty();
  }

  private static void put(ObjectNode form, String key, boolean isSet) {
    if (isSet) {
      form.put(key, true);
    }
  }

  private static Optional<String> onCall(StubSpec spec, ObjectNode form) {
    for (Map.Entry<Integer, Answer> call : new TreeMap<>(spec.order().onCall()).entrySet()) {
      Optional<JsonNode> written = AnswerWriter.write(call.getValue());
      if (written.isEmpty()) {
        return Optional.of(unwritable(call.getValue()));
      }
      StubNodes.merge(
          form,
          StubNodes.member("onCall", StubNodes.member(call.getKey().toString(), written.get())));
    }
    return Optional.empty();
  }

  private static Optional<String> behaviors(StubSpec spec, ObjectNode form) {
    for (Behavior behavior : spec.behaviors()) {
      Optional<JsonNode> written = behavior.written(AnswerWriter::write);
      if (written.isEmpty()) {
        return Optional.of("one of its failures is computed, or waits for the test");
      }
      if (!StubNodes.merge(form, written.get())) {
        return Optional.of("it has two behaviors of the same kind");
      }
    }
    return Optional.empty();
  }
}
