// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.model.DeclaredStub;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Each key of a stub file is read and written, and allowed by the schema. */
class StubFileGrammarTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  /** Where a key may stand. */
  enum Place {
    CONDITION(
        ConditionKeys.ALL,
        mapping -> stub().setAll(mapping),
        """
        {"path": {"station": "north"}, "query": {"day": "2031-04-02"}, "headers": {"x-desk": "a"},
         "cookies": {"desk": "n"}, "basic": {"user": "mara", "password": "p"}, "bearer": "t-1",
         "json": {"$.vessel.name": "Kittiwake"}, "form": {"berth": "B-12"},
         "xpath": {"/stay/berth": "B-12"}, "namespaces": {"h": "urn:harbour"},
         "parts": {"manifest": {"fileName": "m.csv", "contentType": "text/csv",
             "content": {"body": {"text": {"contains": "coal"}}}}},
         "body": {"sameText": "hello"},
         "graphql": {"operation": "Berths", "kind": "query", "variables": {"day": 3},
             "fields": ["berths"]},
         "soap": {"version": "1.2", "action": "declare", "element": "Declare",
             "qualifiedElement": "{urn:harbour}Declare"},
         "anyOf": [{"query": {"a": "1"}}, {"query": {"b": "1"}}],
         "allOf": [{"query": {"a": "1"}}, {"query": {"b": "1"}}],
         "not": {"graphql": {"operation": "Berths"}}}
        """),
    VALUE(
        ValueKeys.ALL,
        mapping -> stub().set("query", MAPPER.createObjectNode().set("day", mapping)),
        """
        {"is": "a", "contains": "a", "startsWith": "a", "endsWith": "a", "pattern": "a+",
         "oneOf": ["a", "b"], "ignoringCase": true, "missing": true, "present": true,
         "not": {"contains": "a"}, "each": {"contains": "a"}, "list": ["a", {"contains": "b"}],
         "inAnyOrder": ["a", "b"], "size": {"atLeast": 2}, "length": {"atMost": 35},
         "atLeast": 1.5, "atMost": 4,
         "between": [1, 2.5], "before": "2031-04-02", "after": "2031-04-02T12:00:00Z",
         "instant": "2031-04-02T12:00:00Z", "json": {"a": [1, null]},
         "allOf": ["a", {"contains": "a"}], "anyOf": ["a", {"contains": "b"}]}
        """),
    BODY(
        BodyKeys.ALL,
        mapping -> stub().set("body", mapping),
        """
        {"sameJson": {"a": 1}, "containsJson": {"a": 1}, "ignoring": ["$.id"], "anyOrder": true,
         "jsonSchema": {"type": "object"}, "sameXml": "<a/>", "sameText": "a",
         "sameBytes": "AAEC", "text": {"contains": "a"}}
        """),
    ANSWER(
        AnswerKeys.ALL,
        mapping -> stub().set("answer", mapping),
        """
        {"status": 201, "json": {"berth": "B-12"}, "xml": "<berth/>", "text": "B-12",
         "html": "<p>B-12</p>", "base64": "AAEC", "form": {"berth": "B-12"}, "file": "tides.json",
         "classpath": "tides.json", "problem": {"title": "Full", "status": 409, "berths": 0},
         "redirect": "https://tides.example/v2",
         "recorded": {"cassette": "harbour.har", "request": "GET https://tides.example/v1"},
         "stream": {"mediaType": "text/plain", "pieces": ["a", "b"]},
         "events": [{"name": "tide", "data": "high", "id": "7"}, "low"],
         "headers": {"x-desk": ["a", "b"]},
         "cookies": [{"name": "desk", "value": "n", "attributes": ["Path=/"]}], "etag": "v1",
         "trailers": {"x-sum": "1"}, "charset": "ISO-8859-1", "replacing": {"$.berth": "B-13"},
         "encoding": "gzip", "ranges": true, "template": true, "streamed": true,
         "realService": true, "mayFail": true, "fault": "truncated", "bytes": 3,
         "delay": ["100ms", "1s"], "pauseBeforeBody": "PT1S", "pieces": 3, "pause": "PT0.1S",
         "rate": 1000, "repeated": 2}
        """);

    /** The keys that a key needs next to it. */
    private static final Map<String, String> WITH =
        Map.ofEntries(
            Map.entry("namespaces", "{\"xpath\": {\"/h:stay\": \"a\"}}"),
            Map.entry("is", "{\"ignoringCase\": true}"),
            Map.entry("ignoringCase", "{\"contains\": \"a\"}"),
            Map.entry("ignoring", "{\"sameJson\": {\"a\": 1}}"),
            Map.entry("anyOrder", "{\"sameJson\": {\"a\": 1}}"),
            Map.entry("charset", "{\"text\": \"caf\\u00e9\"}"),
            Map.entry("replacing", "{\"json\": {\"berth\": \"B-12\"}}"),
            Map.entry("encoding", "{\"text\": \"B-12\"}"),
            Map.entry("ranges", "{\"text\": \"B-12\"}"),
            Map.entry("template", "{\"file\": \"tides.json\"}"),
            Map.entry("streamed", "{\"file\": \"tides.json\"}"),
            Map.entry("etag", "{\"text\": \"B-12\"}"),
            Map.entry("trailers", "{\"text\": \"B-12\"}"),
            Map.entry("mayFail", "{\"realService\": true}"),
            Map.entry("fault", "{\"text\": \"B-12\"}"),
            Map.entry("bytes", "{\"fault\": \"truncated\", \"text\": \"B-12\"}"),
            Map.entry("pause", "{\"pieces\": 2, \"text\": \"B-12\"}"),
            Map.entry("pieces", "{\"text\": \"B-12\"}"),
            Map.entry("rate", "{\"text\": \"B-12\"}"));

    private final Keys<?> keys;
    private final UnaryOperator<ObjectNode> stubOf;
    private final ObjectNode examples;

    Place(Keys<?> keys, Stubbing stubOf, String examples) {
      this.keys = keys;
      this.stubOf = mapping -> (ObjectNode) stubOf.of(mapping);
      this.examples = parsed(examples);
    }

    private interface Stubbing {
      JsonNode of(ObjectNode mapping);
    }

    private static ObjectNode stub() {
      ObjectNode stub = MAPPER.createObjectNode();
      stub.put("request", "GET https://tides.example/v1/{station}");
      return (ObjectNode) stub.set("answer", MAPPER.createObjectNode().put("status", 204));
    }

    List<ObjectNode> stubs() {
      List<ObjectNode> stubs = new ArrayList<>();
      for (Map.Entry<String, JsonNode> example : examples.properties()) {
        ObjectNode mapping = parsed(WITH.getOrDefault(example.getKey(), "{}"));
        stubs.add(stubOf.apply(mapping.set(example.getKey(), example.getValue())));
      }
      return stubs;
    }
  }

  @ParameterizedTest
  @EnumSource
  void eachKeyHasAnExample(Place place) {
    TreeSet<String> examples = new TreeSet<>();
    place.examples.fieldNames().forEachRemaining(examples::add);

    assertEquals(new TreeSet<>(place.keys.names()), examples);
  }

  @ParameterizedTest
  @EnumSource
  void eachIsReadWrittenAndInTheSchema(Place place) {
    JsonSchemas schema = new JsonSchemas(StubFileSchema.document());
    for (ObjectNode stub : place.stubs()) {
      ObjectNode file = StubWriter.file(List.of(stub));
      assertEquals(List.of(), schema.differences(file), stub::toString);

      ObjectNode written = writtenBack(stub);
      ObjectNode again = StubWriter.file(List.of(written));
      assertEquals(List.of(), schema.differences(again), written::toString);
      assertEquals(written, writtenBack(written), stub::toString);
      if (place != Place.ANSWER) {
        assertEquals(stub, written);
      }
    }
  }

  @ParameterizedTest
  @EnumSource
  void eachIsRefusedIfItIsMisspelt(Place place) {
    for (String name : place.keys.names()) {
      ObjectNode mapping = MAPPER.createObjectNode().put(name + "x", "a");
      StubFile file = read(place.stubOf.apply(mapping));

      String message = file.problems().get(0).message();
      assertTrue(message.contains("\"" + name + "x\""), message);
      assertTrue(message.contains("Allowed: " + name + ","), message);
    }
  }

  @Test
  void aFaultWithinAnAnswerHasNoStream() {
    ObjectNode answer = parsed("{\"fault\": \"truncated\", \"events\": [\"low\"]}");

    assertEquals(
        "a fault within an answer needs a whole body, not \"events\".",
        read(Place.ANSWER.stubOf.apply(answer)).problems().get(0).message());
  }

  private static StubFile read(ObjectNode stub) {
    return StubFile.read("harbour", StubWriter.file(List.of(stub)).toString(), new NoFiles());
  }

  private static ObjectNode writtenBack(ObjectNode stub) {
    StubFile file = read(stub);
    assertEquals(List.of(), file.problems(), stub::toString);
    DeclaredStub declared = DeclaredStub.alone(file.stubs().get(0).spec());
    StubWriter.Result result = StubWriter.write(declared);
    return parsed(
        result.form().orElseThrow(() -> new AssertionError(result.obstacle())).toString());
  }

  private static ObjectNode parsed(String json) {
    try {
      return (ObjectNode) MAPPER.readTree(json);
    } catch (java.io.IOException impossible) {
      throw new IllegalArgumentException(json, impossible);
    }
  }
}
