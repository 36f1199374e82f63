// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answers;
import dev.cachette.answer.Event;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.yaml.Node;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Reads the content of an answer, which has one at most. */
final class ContentReader {

  private static final Headers JSON = Headers.none().with("content-type", "application/json");

  private final Problems problems;
  private final StubFileResolver surroundings;

  ContentReader(Problems problems, StubFileResolver surroundings) {
    this.problems = problems;
    this.surroundings = surroundings;
  }

  /** Returns true if it is streamed. */
  static boolean isStream(Fields fields) {
    return fields.hasAny(ContentKeys.STREAMED.names());
  }

  /** Reads a response with its content and status. */
  ResponseAnswer response(Fields fields) {
    Optional<Integer> status = fields.number(AnswerKeys.STATUS);
    Optional<Node.Member> content = only(fields);
    if (content.isEmpty()) {
      return Answers.status(status.orElse(200));
    }
    String name = content.get().name();
    ContentKeys.Reading key = ContentKeys.WHOLE.reading(name);
    if (key == null) {
      throw new IllegalArgumentException(
          "a fault within an answer needs a whole body, not \"" + name + "\".");
    }
    ResponseAnswer answer = key.of(this, content.get().value());
    return status.isPresent() ? answer.status(status.get()) : answer;
  }

  private static Optional<Node.Member> only(Fields fields) {
    Optional<Node.Member> content = Optional.empty();
    for (Node.Member member : fields.members()) {
      if (!ContentKeys.ALL.contains(member.name())) {
        continue;
      }
      if (content.isPresent()) {
        throw new IllegalArgumentException(
            String.format(
                "an answer has one content, found both \"%s\" and \"%s\". Fix: remove one of them.",
                content.get().name(), member.name()));
      }
      content = Optional.of(member);
    }
    return content;
  }

  /** Reads JSON. */
  ResponseAnswer json(Node node) {
    return ResponseAnswer.of(new Response(200, JSON, Body.of(Json.text(node.json()))));
  }

  /** Reads the name of a file. */
  ResponseAnswer file(Node node) {
    return surroundings.file(text(node));
  }

  /** Reads the bytes that are sent, which are not HTTP. */
  Optional<byte[]> raw(Fields fields) {
    return fields
        .get("base64")
        .map(ContentReader::bytes)
        .or(() -> fields.text("text").map(text -> text.getBytes(StandardCharsets.UTF_8)));
  }

  StreamAnswer stream(Fields fields) {
    only(fields);
    Optional<Node> events = fields.get(ContentKeys.EVENTS);
    if (events.isPresent()) {
      return Answers.events(
          Fields.elements(events.get()).stream().map(this::event).toArray(Event[]::new));
    }
    Fields stream =
        Fields.of(
            fields.get(ContentKeys.STREAM).orElseThrow(),
            "key of a stream",
            ContentKeys.STREAM_PARTS,
            problems);
    return Answers.stream(
        stream.text("mediaType").orElse("text/plain; charset=utf-8"),
        stream.texts("pieces").toArray(String[]::new));
  }

  private Event event(Node node) {
    if (node.isText()) {
      return Event.of(node.text());
    }
    Fields fields = Fields.of(node, "key of an event", ContentKeys.EVENT, problems);
    return new Event(fields.text("name"), fields.text("data").orElse(""), fields.text("id"));
  }

  /** Reads the fields of a form. */
  ResponseAnswer form(Node node) {
    Map<String, String> form = new LinkedHashMap<>();
    Fields.any(node, problems).members().forEach(it -> form.put(it.name(), it.value().text()));
    return Answers.form(form);
  }

  /** Reads a problem (RFC 9457), with its members unchanged. */
  ResponseAnswer problem(Node node) {
    Fields fields = Fields.any(node, problems);
    Map<String, Object> others = new LinkedHashMap<>();
    for (Node.Member member : fields.members()) {
      if (!ContentKeys.PROBLEM.contains(member.name())) {
        others.put(member.name(), member.value().json());
      }
    }
    return Answers.problem(
        fields.number("status").orElse(500), fields.text("title").orElse("Problem"), others);
  }

  /** Reads a response of a cassette. */
  ResponseAnswer recorded(Node node) {
    Fields fields = Fields.of(node, "key of a recorded answer", ContentKeys.RECORDED, problems);
    return surroundings.recorded(
        fields.text("cassette").orElseThrow(() -> missing("cassette")),
        fields.text("request").orElseThrow(() -> missing("request")));
  }

  private static IllegalArgumentException missing(String key) {
    return new IllegalArgumentException("a recorded answer needs \"" + key + "\".");
  }

  /** Reads Base64 (RFC 4648), which may have line breaks. */
  static byte[] bytes(Node node) {
    try {
      return Base64.getDecoder().decode(text(node).replaceAll("\\s", ""));
    } catch (IllegalArgumentException malformed) {
      throw new IllegalArgumentException("not valid Base64: " + malformed.getMessage(), malformed);
    }
  }

  /** Reads a string. */
  static String text(Node node) {
    if (node.scalar() == null || node.scalar().isNull()) {
      throw new IllegalArgumentException("expected a string, found " + node.kind() + forJson(node));
    }
    return node.text();
  }

  private static String forJson(Node node) {
    return node.isMapping() || node.isSequence() ? ". Fix: use json for other values." : ".";
  }
}
