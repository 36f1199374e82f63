// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.stubfile.StubFileProblem;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** All mistakes in a stub file are found, each at its place. */
class StubFileProblemsTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          answer: [1]                                 | expected a mapping
          answer: noResponses                         | Did you mean "noResponse"
          answer: truncated                           | needs an answer. Fix: { fault: truncated
          answer: { fault: nothing }                  | unknown fault "nothing"
          answer: { fault: goAway, text: a }          | "text" is not allowed with "fault"
          answer: { fault: notHttp, json: 1 }         | "json" is not allowed with "fault"
          answer: { fault: headersTooLarge, text: a } | "text" is not allowed with "fault"
          answer: { bytes: 3 }                        | "bytes" needs a fault next to it
          answer: { mayFail: true }                   | needs "realService: true"
          answer: { realService: true, text: a }      | "text" is not allowed with "realService"
          answer: { text: a, json: 1 }                | found both "text" and "json"
          answer: { text: { a: 1 } }                  | expected a string, found a mapping
          answer: { text: [a] }                       | Fix: use json for other values
          answer: { base64: '*' }                     | not valid Base64
          answer: { status: 900 }                     | 200 to 599, not 900
          answer: { status: ok }                      | expected a whole number
          answer: { charset: utf-9, text: a }         | "utf-9" is not a supported charset
          answer: { encoding: br, text: a }           | unknown encoding "br"
          answer: { delay: soon, text: a }            | "soon" is not a duration
          answer: { delay: [1s, 2s, 3s], text: a }    | one duration, or the shortest
          answer: { delay: [2s, 1s], text: a }        | not PT2S to PT1S
          answer: { recorded: { cassette: a } }       | a recorded answer needs "request"
          answer: { recorded: { request: a } }        | a recorded answer needs "cassette"
          answer: { events: [a], text: b }            | "text" is not allowed with "stream"
          answer: { stream: { pieces: a }, etag: x }  | "etag" is not allowed with "stream"
          answer: { cookies: [{ nam: a }] }           | Did you mean "name"
          answer: { repeated: 0, text: a }            | a whole number from 1
          query: [a]                                  | expected a mapping
          query: { day: [a] }                         | a sequence is ambiguous here
          query: { day: {} }                          | an empty mapping has no condition
          query: { day: { present: maybe } }          | expected true or false
          query: { day: { atLeast: many } }           | expected a number
          query: { day: { between: [1] } }            | between needs two numbers
          query: { day: { before: noon } }            | "noon" is not a time
          query: { day: { contains: [a] } }           | expected a plain value
          query: { day: { pattern: '(' } }            | (
          json: { '$.a[': 1 }                         | $.a[
          basic: { user: a }                          | "password" is missing
          graphql: { kind: read }                     | "read" is not an operation kind
          soap: { qualifiedElement: a }               | is not a qualified name
          body: { ignoring: [$.a] }                   | need sameJson or containsJson
          body: { sameXml: '<a' }                     | XML
          body: { sameBytes: '?' }                    | not valid Base64
          parts: { a: { fileNam: b } }                | Did you mean "fileName"
          not: { quary: { a: b } }                    | Did you mean "query"
          rateLimit: { calls: 1 }                     | rateLimit needs both keys
          flaky: { probability: 2 }                   | flaky needs a probability
          onCall: { 0: 500 }                          | the number of a call is 1 or more
          from: noon                                  | "noon" is not a time
          given: { stat: free }                       | Did you mean "state"
          given: [{ parameters: { a: 1 } }]           | a state needs its words
          given: { state: a, parameters: 1 }          | expected a mapping
          needs: [a]                                  | expected a mapping
          needs: { $.a: optinal }                     | Did you mean "optional"
          needs: { $.a: { optional: maybe } }         | expected true or false
          needs: { $.a: { formt: date } }             | Did you mean "format"
          needs: { $.a: { format: dat } }             | Did you mean "date"
          needs: { $.a: { pattern: '(' } }            | malformed regular expression
          needs: { $.a: { oneOf: a } }                | oneOf needs a sequence
          needs: { $.a: {} }                          | an empty mapping needs nothing
          needs: { '$.a[': optional }                 | $.a[
          needs: { 'a header': optional }             | neither a JSON path
          example: { methd: GET }                     | Did you mean "method"
          shape: { bdy: {} }                          | Did you mean "body"
          shape: { body: { type: objct } }            | not a valid JSON Schema
          shape: { headers: { a: { type: sting } } }  | not a valid JSON Schema
          times: 0                                    | a whole number from 1
          times: [1]                                  | found a sequence
          name: [a]                                   | found a sequence
          after: [{ a: b }]                           | expected a string
          lopping: true                               | Did you mean "looping"
          """)
  void aProblemIsNamedAtItsPlace(String stub, String said) {
    String rest = stub.startsWith("answer") ? "" : ", answer: 204";
    StubFile file = read("stubs:\n- { request: 'GET https://a.example/', " + stub + rest + " }");

    assertEquals(
        1,
        file.problems().stream().filter(it -> it.message().contains(said)).count(),
        () -> file.problems().toString());
    StubFileProblem problem = file.problems().get(0);
    assertEquals(2, problem.line());
    assertTrue(problem.path().startsWith("stubs[0]"), problem.path());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          ``                                             | the file is empty
          stub: []                                       | Did you mean "stubs"
          stubs: [{ answer: 204 }]                       | a stub needs a request
          stubs: [{ request: GET https://a.example/ }]   | a stub needs an answer
          stubs: [{ request: GET a, answer: 1, answers: [1] }] | "answer" or "answers", not both
          stubs: [{ request: nothing, answer: 204 }]     | nothing
          collections: [{}]                              | a collection needs a url
          collections: [{ url: 'no url' }]               | no url
          collections: [{ url: https://a.example/b, seed: 1 }]       | a sequence of objects
          collections: [{ url: https://a.example/b, seed: [1] }]     | but element 0 is 1
          collections: [{ url: https://a.example/b, etag: true }]    | Did you mean "etags"
          cors: sometimes                                | expected true or false
          shared: [a]                                    | expected names with values
          { shared: { a: 1 }, stubs: [{ $ref: "#/shared/b" }] }      | there is no "b" in shared
          { shared: { a: { $ref: "#/shared/a" } }, stubs: { $ref: "#/shared/a" } } | contains itself
          { shared: { a: 1 }, stubs: [{ $ref: "#/shared/a", name: b }] } | nothing can be added
          { stubs: [{ $ref: "other.yaml" }] }            | $ref must be "#/shared/NAME"
          """)
  void aProblemOfTheFileIsNamed(String text, String said) {
    StubFile file = read(text);

    assertTrue(
        file.problems().stream().anyMatch(it -> it.message().contains(said)),
        () -> file.problems().toString());
  }

  @Test
  void allProblemsAreFoundAtOnceInTheOrderOfTheirLines() {
    StubFile file =
        read(
            """
            stubs:
              - { request: GET https://a.example/1, answer: soon }
              - { request: GET https://a.example/2, quary: { a: b }, answer: 204 }
              - { request: GET https://a.example/3, answer: 204 }
            cors: 7
            """);

    assertEquals(List.of(2, 3, 5), file.problems().stream().map(StubFileProblem::line).toList());
    assertEquals(2, file.stubs().size());
  }

  private static StubFile read(String text) {
    return StubFile.read("harbour.stubs.yaml", text, new NoFiles());
  }
}
