// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.internal.yaml.Trees;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Needs of tests, in stub files and in Java. */
class NeedsTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  @TempDir private Path folder;

  static List<String[]> needs() {
    return Tables.read("needs.txt");
  }

  @ParameterizedTest
  @MethodSource("needs")
  void aStubFileSaysThem(String example, String needs, String expected) throws IOException {
    String file =
        "stubs: [{request: 'GET https://berths.example/v1/berths', answer: {json: "
            + example
            + "}, needs: "
            + needs
            + "}]";
    if (expected.startsWith("error: ")) {
      RuntimeException failure = assertThrows(RuntimeException.class, () -> recorded(file));
      assertTrue(
          failure.getMessage().contains(expected.substring("error: ".length())),
          failure.getMessage());
    } else {
      assertEquals(MAPPER.readTree(expected), recorded(file).at("/stubs/0/shape/body"));
    }
  }

  private JsonNode recorded(String file) {
    Recording.session(
        folder,
        "harbour.NeedsTest",
        (net, contract) -> {
          net.declare(file);
          new Desk().get("/v1/berths");
        });
    return Trees.read(Recording.text(folder), (line, column, path, message) -> {})
        .orElseThrow()
        .json();
  }

  @Test
  void javaSaysThem() throws IOException {
    Recording.session(
        folder,
        "harbour.NeedsTest",
        (net, contract) -> {
          Stub stub =
              net.stub("GET https://berths.example/v1/berths")
                  .answer(
                      json("""
                      {"a": 1, "b": "2031-04-02", "c": ["x", 1], "d": [1], "e": "x",
                       "f": "x", "g": 3, "h": 1}
                      """)
                          .header("etag", "\"1\"")
                          .header("link", "<x>"));
          contract
              .clause(stub)
              .optional("$.a", "link")
              .nullable("$.a")
              .formats("$.b")
              .anyOrder("$.c")
              .anyLength("$.c")
              .atLeastOne("$.d")
              .pattern("$.e", "\\w")
              .pattern("ETag", "\".*\"")
              .oneOf("$.f", "x", "y")
              .exactly("$.g", 3)
              .format("$.b", "date");
          new Desk().get("/v1/berths");
        });

    JsonNode shape =
        Trees.read(Recording.text(folder), (line, column, path, message) -> {})
            .orElseThrow()
            .json()
            .at("/stubs/0/shape");
    assertEquals(
        MAPPER.readTree(
            """
            {"mediaType": "application/json",
             "headers": {"etag": {"type": "string", "pattern": "^(?:\\".*\\")$"}},
             "body": {"type": "object", "required": ["b", "c", "d", "e", "f", "g", "h"],
              "properties": {"a": {"type": ["integer", "null"]},
               "b": {"type": "string", "format": "date"},
               "c": {"type": "array",
                "items": {"anyOf": [{"type": "string"}, {"type": "integer"}]}},
               "d": {"type": "array", "items": {"type": "integer"}, "minItems": 1},
               "e": {"type": "string", "pattern": "^(?:\\\\w)$"}, "f": {"enum": ["x", "y"]},
               "g": {"const": 3}, "h": {"type": "integer"}}}}
            """),
        shape);
  }

  @Test
  void wrongArgumentsAreRefusedAtOnce() {
    Recording.session(
        folder,
        "harbour.NeedsTest",
        (net, contract) -> {
          StubClause clause =
              contract.clause(
                  net.stub("GET https://berths.example/v1/berths").answer(json(Map.of("a", 1))));
          refused(() -> clause.given(" "), "given(state) needs words");
          refused(() -> clause.optional("a b"), "neither a JSON path");
          refused(() -> clause.optional("$["), "$[");
          refused(() -> clause.pattern("$.a", "("), "malformed regular expression");
          refused(() -> clause.format("$.a", "dat"), "Did you mean \"date\"?");
          new Desk().get("/v1/berths");
        });
  }

  private static void refused(Runnable call, String message) {
    IllegalArgumentException refusal = assertThrows(IllegalArgumentException.class, call::run);
    assertTrue(refusal.getMessage().contains(message), refusal.getMessage());
  }

  /** A booking, as the desk reads it. */
  record Booking(String berth, int number) {

    static Booking strict(String body) throws IOException {
      JsonNode json = MAPPER.readTree(body);
      return new Booking(json.required("berth").asText(), json.required("number").intValue());
    }
  }

  @Test
  void theConsumerMustBeAbleToReadWhatMayBeMissing() {
    try (Cachette net = Cachette.open(Settings.defaults().contractFolder(folder))) {
      ContractRecording contract = Recording.begin(net);
      Stub stub =
          net.stub("GET https://berths.example/v1/bookings/7")
              .answer(json("{\"berth\":\"B-12\",\"number\":7,\"remark\":\"x\"}"));
      contract.clause(stub).optional("$.remark").nullable("$.remark").readBy(Booking::strict);

      AssertionFailedError failure =
          assertThrows(
              AssertionFailedError.class,
              () -> contract.clause(stub).optional("$.number").readBy(Booking::strict));

      assertTrue(
          failure.getMessage().contains("$.number, which may be missing"), failure.getMessage());
      assertTrue(failure.getMessage().contains("NeedsTest.java:"), failure.getMessage());
      new Desk().get("/v1/bookings/7");
    }
  }
}
