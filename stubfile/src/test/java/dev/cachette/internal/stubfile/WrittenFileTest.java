// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.internal.model.DeclaredStub;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.Values;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files that are written from active stubs. */
class WrittenFileTest {

  private static final String SECRET = "fKq3Zx9LmT27bVh4";

  @Test
  void whatCannotBeWrittenIsACommentWithItsReason() {
    Answer computed = Answers.computed(call -> Answers.text("a"));
    String yaml =
        StubWriter.all(
            List.of(
                stub("GET https://a.example/1", List.of(computed)),
                stub("GET https://a.example/2", List.of(Answers.text("a")))));

    assertTrue(yaml.startsWith("# not written: \"GET https://a.example/1\""), yaml);
    assertTrue(yaml.lines().findFirst().orElseThrow().contains("is computed"), yaml);
    StubFile again = StubFile.read("written", yaml, new NoFiles());
    assertEquals(List.of(), again.problems());
    assertEquals("GET https://a.example/2", again.stubs().get(0).spec().pattern().line());
  }

  @Test
  void theSameAnswerInTurnIsWrittenOnce() {
    Answer busy = Answers.status(503);
    String yaml =
        StubWriter.all(
            List.of(stub("GET https://a.example/", List.of(busy, busy, busy, Answers.text("a")))));

    assertTrue(yaml.contains("repeated: 3"), yaml);
    StubFile again = StubFile.read("written", yaml, new NoFiles());
    assertEquals(4, again.stubs().get(0).spec().order().answers().size());
  }

  @Test
  void stubsThatMustBeCalledFirstAreNamed() {
    StubSpec spec = stub("GET https://a.example/", List.of(Answers.text("a"))).spec();
    DeclaredStub later =
        new DeclaredStub(spec, List.of(new StubReference("book", "a.java:1")), Optional.empty());

    assertTrue(StubWriter.all(List.of(later)).contains("after:\n"), StubWriter.all(List.of(later)));
  }

  /** Where a secret may stand in a stub; some are secret by their place, some by their shape. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          "headers": { "authorization": "Bearer @" }
          "headers": { "x-api-key": { "anyOf": ["@", { "startsWith": "@" }] } }
          "cookies": { "session": "@" }
          "query": { "api_key": "@" }
          "form": { "password": "@" }
          "bearer": "@"
          "basic": { "user": "mara", "password": "@" }
          "json": { "$.password": "@" }
          "json": { "$.access.token": { "oneOf": ["@", "b"] } }
          "xpath": { "/a/password": "@" }
          "body": { "sameJson": { "password": "@" } }
          "body": { "containsJson": { "a": [{ "access_token": "@" }] } }
          "body": { "sameXml": "<a><password>@</password></a>" }
          "body": { "sameText": "password=@&a=b" }
          "where": [{ "bearer": "@" }, { "anyOf": [{ "cookies": { "session": "@" } }] }]
          "not": { "headers": { "authorization": "Bearer @" } }
          "answer": { "json": { "access_token": "@" } }
          "answer": { "headers": { "set-cookie": "session=@" }, "text": "a" }
          "answer": { "headers": { "authorization": ["Bearer @", "Bearer @"] }, "text": "a" }
          "answer": { "xml": "<a><password>@</password></a>" }
          "answers": [{ "json": { "password": "@" } }, 204]
          "name": "GET https://a.example/?token=@"
          """)
  void aSecretIsNotWritten(String member) throws Exception {
    String stub =
        "{ \"request\": \"GET https://a.example/\", " + member.replace("@", SECRET) + " }";
    String yaml =
        StubWriter.yaml(List.of((ObjectNode) new ObjectMapper().readTree(stub)), List.of());

    assertFalse(yaml.contains(SECRET), yaml);
    assertTrue(yaml.startsWith("# "), yaml);
  }

  @Test
  void whatIsNoSecretStays() {
    Condition north = Conditions.query("station", Values.is("north"));
    String yaml =
        StubWriter.all(
            List.of(
                DeclaredStub.alone(
                    StubSpec.of(
                        RequestPattern.of("GET https://a.example/").where(north),
                        new StubReference("tides", "a.java:1"),
                        List.of(Answers.json("{\"berth\":\"B-12\"}"))))));

    assertTrue(yaml.contains("station: north"), yaml);
    assertTrue(yaml.contains("berth: B-12"), yaml);
    assertFalse(yaml.startsWith("#"), yaml);
  }

  private static DeclaredStub stub(String line, List<Answer> answers) {
    return DeclaredStub.alone(
        StubSpec.of(RequestPattern.of(line), new StubReference(line, "a.java:1"), answers));
  }
}
